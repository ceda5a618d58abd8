import { z } from 'zod'
import * as answering from './answering'
import * as forms from './forms'
import { LINK_ROUTES } from './linkRoutes'
import * as lists from './lists'
import * as releases from './releases'
import * as responses from './responses'
import * as session from './session'

/** A request that the server answers: where, with what, and what comes back. */
export interface Endpoint {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE'
  /** `:name` stands for a parameter. */
  path: string
  params?: z.ZodObject
  query?: z.ZodType
  /** JSON; none for bytes, which are sent as they are. */
  body?: z.ZodType
  answer: z.ZodType
}

const Id = z.object({ id: z.uuid() })
const State = Id.extend({ revision: z.coerce.number().int().min(0) })

/** Every request between the pages and the server: both are made from this table. */
export const API = {
  signIn: { method: 'POST', path: '/api/session', body: session.SignIn, answer: session.SignedIn },
  signOut: { method: 'DELETE', path: '/api/session', answer: session.Done },

  listForms: { method: 'GET', path: '/api/forms', answer: z.array(forms.FormBrief) },
  createForm: { method: 'POST', path: '/api/forms', body: forms.NewForm, answer: forms.CreatedForm },
  loadForm: { method: 'GET', path: '/api/forms/:id', params: Id, answer: forms.LoadedForm },
  copyForm: {
    method: 'POST',
    path: '/api/forms/:id/copies',
    params: Id,
    body: forms.CopyForm,
    answer: forms.CreatedForm,
  },
  fileForm: {
    method: 'PUT',
    path: '/api/forms/:id/filing',
    params: Id,
    body: forms.Filing,
    answer: session.Done,
  },
  deleteForm: {
    method: 'DELETE',
    path: '/api/forms/:id',
    params: Id,
    query: forms.DeleteForm,
    answer: session.Done,
  },
  saveEdits: {
    method: 'POST',
    path: '/api/forms/:id/edits',
    params: Id,
    body: forms.SaveEdits,
    answer: forms.SavedEdits,
  },
  loadChanges: {
    method: 'GET',
    path: '/api/forms/:id/changes',
    params: Id,
    query: forms.ChangesSince,
    answer: z.array(forms.Change),
  },
  loadHistory: { method: 'GET', path: '/api/forms/:id/history', params: Id, answer: forms.History },
  loadState: {
    method: 'GET',
    path: '/api/forms/:id/states/:revision',
    params: State,
    answer: forms.DraftState,
  },
  acceptRisk: {
    method: 'PUT',
    path: '/api/forms/:id/acceptances',
    params: Id,
    body: releases.Accepting,
    answer: z.array(releases.Acceptance),
  },
  releaseForm: {
    method: 'POST',
    path: '/api/forms/:id/releases',
    params: Id,
    body: releases.NewRelease,
    answer: releases.Released,
  },
  listResponses: {
    method: 'GET',
    path: '/api/forms/:id/responses',
    params: Id,
    query: responses.ResponseQuery,
    answer: responses.ResponseTable,
  },
  loadResponse: { method: 'GET', path: '/api/responses/:id', params: Id, answer: responses.ResponseDetails },

  listSharedLists: { method: 'GET', path: '/api/lists', answer: z.array(lists.SharedListBrief) },
  loadSharedList: {
    method: 'GET',
    path: '/api/lists/:code',
    params: lists.ListCode,
    answer: lists.SharedList,
  },
  saveSharedList: {
    method: 'PUT',
    path: '/api/lists/:code',
    params: lists.ListCode,
    body: lists.SaveShared,
    answer: lists.SavedShared,
  },

  openLink: {
    ...LINK_ROUTES.openLink,
    params: answering.LinkToken,
    answer: answering.RespondentPage,
  },
  sendAnswers: {
    ...LINK_ROUTES.sendAnswers,
    params: answering.LinkToken,
    body: answering.Sending,
    answer: answering.Sent,
  },
  refetchForm: {
    ...LINK_ROUTES.refetchForm,
    params: answering.LinkToken,
    body: answering.Sending,
    answer: answering.VisibleForm,
  },
  searchRows: {
    ...LINK_ROUTES.searchRows,
    params: answering.LinkToken,
    body: answering.RowSearch,
    answer: answering.FoundRows,
  },
  returnTurn: {
    ...LINK_ROUTES.returnTurn,
    params: answering.LinkToken,
    body: answering.Returning,
    answer: answering.Returned,
  },
  giveFile: {
    ...LINK_ROUTES.giveFile,
    params: answering.LinkToken,
    query: answering.GivenFile,
    answer: answering.TakenFile,
  },
} as const satisfies Record<string, Endpoint>

/** A part of an endpoint as it is read: `undefined` where there is none. */
type Read<E extends Endpoint, K extends 'params' | 'query' | 'body'> = E[K] extends z.ZodType
  ? z.output<E[K]>
  : undefined
/** What a route is given: everything read by its schemas. */
export interface ReadRequest<E extends Endpoint> {
  params: Read<E, 'params'>
  query: Read<E, 'query'>
  body: Read<E, 'body'>
}
/** What the server answers. */
export type AnswerOf<E extends Endpoint> = z.output<E['answer']>

type Part<E extends Endpoint, K extends 'params' | 'query' | 'body'> = E[K] extends z.ZodType
  ? { [P in K]: z.input<E[K]> }
  : object
/** What whoever calls an endpoint has to give. */
export type RequestOf<E extends Endpoint> = Part<E, 'params'> & Part<E, 'query'> & Part<E, 'body'>

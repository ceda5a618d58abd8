import { z } from 'zod'
import * as answering from './answering'
import * as board from './board'
import { COLLECT_ENDPOINTS } from './collectEndpoints'
import * as forms from './forms'
import { LINK_ROUTES } from './linkRoutes'
import * as inbox from './inbox'
import * as lists from './lists'
import * as looks from './looks'
import { Id } from './ids'
import { OUTSIDE_ENDPOINTS } from './outsideEndpoints'
import * as pageSteps from './pageSteps'
import * as people from './people'
import { RELEASE_ENDPOINTS } from './releaseEndpoints'
import * as responses from './responses'
import * as session from './session'
import * as sharing from './sharing'
import { CounterInAddress } from './stored'
import * as suggestions from './suggestions'
import { WAY_ENDPOINTS } from './wayEndpoints'

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

const State = Id.extend({ revision: CounterInAddress })

/** Requests that no other table has. */
const OTHERS = {
  signIn: { method: 'POST', path: '/api/session', body: session.SignIn, answer: session.SignedIn },
  signOut: { method: 'DELETE', path: '/api/session', answer: session.Done },
  loadSetUp: { method: 'GET', path: '/api/set-up', answer: people.SetUpState },
  setUp: { method: 'POST', path: '/api/set-up', body: people.SetUp, answer: session.SignedIn },
  forgetPassword: {
    method: 'POST',
    path: '/api/forgotten-passwords',
    body: session.ForgottenPassword,
    answer: session.Done,
  },
  openKey: { method: 'GET', path: '/api/keys/:key', params: session.OneTimeKey, answer: session.OpenedKey },
  choosePassword: {
    method: 'POST',
    path: '/api/keys/:key',
    params: session.OneTimeKey,
    body: session.ChoosePassword,
    answer: session.SignedIn,
  },

  loadAccount: { method: 'GET', path: '/api/account', answer: session.Account },
  changeAccount: {
    method: 'PUT',
    path: '/api/account',
    body: session.ChangeAccount,
    answer: session.Done,
  },
  changePassword: {
    method: 'PUT',
    path: '/api/account/password',
    body: session.ChangePassword,
    answer: session.Done,
  },
  endSession: { method: 'DELETE', path: '/api/account/sessions/:id', params: Id, answer: session.Done },
  beginSecondFactor: {
    method: 'POST',
    path: '/api/account/second-factor',
    body: session.OwnPassword,
    answer: session.BegunFactor,
  },
  confirmSecondFactor: {
    method: 'PUT',
    path: '/api/account/second-factor',
    body: session.FactorCode,
    answer: session.Done,
  },
  removeSecondFactor: {
    method: 'POST',
    path: '/api/account/second-factor/removal',
    body: session.OwnPassword,
    answer: session.Done,
  },

  listPeople: { method: 'GET', path: '/api/people', answer: z.array(people.Person) },
  invitePerson: {
    method: 'POST',
    path: '/api/people',
    body: people.Invitation,
    answer: people.PostedLink,
  },
  changePerson: {
    method: 'PUT',
    path: '/api/people/:id',
    params: Id,
    body: people.ChangePerson,
    answer: session.Done,
  },
  inviteAgain: {
    method: 'POST',
    path: '/api/people/:id/invitation',
    params: Id,
    answer: people.PostedLink,
  },
  handOverForms: {
    method: 'POST',
    path: '/api/people/:id/forms',
    params: Id,
    body: people.HandOver,
    answer: session.Done,
  },
  loadWorkspace: { method: 'GET', path: '/api/workspace', answer: people.Workspace },
  saveLook: { method: 'PUT', path: '/api/looks', body: looks.NamedLook, answer: session.Done },
  removeLook: { method: 'DELETE', path: '/api/looks', query: looks.LookByName, answer: session.Done },
  saveWorkspace: { method: 'PUT', path: '/api/workspace', body: people.Workspace, answer: session.Done },
  loadDirectory: { method: 'GET', path: '/api/directory', answer: people.Directory },
  createTeam: {
    method: 'POST',
    path: '/api/teams',
    body: people.SaveTeam,
    answer: forms.CreatedForm,
  },
  changeTeam: {
    method: 'PUT',
    path: '/api/teams/:id',
    params: Id,
    body: people.SaveTeam,
    answer: session.Done,
  },
  deleteTeam: { method: 'DELETE', path: '/api/teams/:id', params: Id, answer: session.Done },
  listRecord: {
    method: 'GET',
    path: '/api/record',
    query: people.RecordQuery,
    answer: people.RecordPage,
  },
  loadHealth: { method: 'GET', path: '/api/health', answer: session.Health },
  loadPost: { method: 'GET', path: '/api/post', answer: people.Post },

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
  listSuggestions: {
    method: 'GET',
    path: '/api/forms/:id/suggestions',
    params: Id,
    answer: suggestions.Suggestions,
  },
  suggest: {
    method: 'POST',
    path: '/api/forms/:id/suggestions',
    params: Id,
    body: suggestions.NewSuggestions,
    answer: session.Done,
  },
  decideSuggestion: {
    method: 'POST',
    path: '/api/forms/:id/suggestions/:suggestion/decision',
    params: suggestions.SuggestionOfForm,
    body: suggestions.Decision,
    answer: session.Done,
  },
  listShares: { method: 'GET', path: '/api/forms/:id/shares', params: Id, answer: z.array(sharing.Share) },
  shareForm: {
    method: 'PUT',
    path: '/api/forms/:id/shares',
    params: Id,
    body: sharing.ShareForm,
    answer: z.array(sharing.Share),
  },
  exportResponses: {
    method: 'GET',
    path: '/api/forms/:id/export',
    params: Id,
    query: responses.ExportQuery,
    answer: responses.FileContent,
  },
  loadFile: { method: 'GET', path: '/api/files/:id', params: Id, answer: responses.FileContent },
  loadBoard: {
    method: 'GET',
    path: '/api/forms/:id/board',
    params: Id,
    query: board.BoardQuery,
    answer: board.Board,
  },
  actOnTurn: {
    method: 'POST',
    path: '/api/turns/:id/acts',
    params: Id,
    body: board.TurnAct,
    answer: board.TurnActDone,
  },
  listInbox: { method: 'GET', path: '/api/turns', query: inbox.InboxQuery, answer: inbox.Inbox },

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
  countStep: {
    method: 'POST',
    path: '/api/answer/:token/steps',
    params: answering.LinkToken,
    body: pageSteps.Step,
    answer: pageSteps.CountedStep,
  },
  keepTurn: {
    ...LINK_ROUTES.keepTurn,
    params: answering.LinkToken,
    body: answering.TurnToKeep,
    answer: answering.KeptTurn,
  },
  returnTurn: {
    ...LINK_ROUTES.returnTurn,
    params: answering.LinkToken,
    body: answering.Returning,
    answer: answering.Returned,
  },
  readFile: {
    method: 'GET',
    path: '/api/answer/:token/files/:file',
    params: answering.FileOfLink,
    answer: responses.FileContent,
  },
  giveFile: {
    ...LINK_ROUTES.giveFile,
    params: answering.LinkToken,
    query: answering.GivenFile,
    answer: answering.TakenFile,
  },
} as const satisfies Record<string, Endpoint>

/** Every request between the pages and the server: both are made from this table. */
export const API: typeof OTHERS &
  typeof COLLECT_ENDPOINTS &
  typeof OUTSIDE_ENDPOINTS &
  typeof RELEASE_ENDPOINTS &
  typeof WAY_ENDPOINTS = {
  ...OTHERS,
  ...COLLECT_ENDPOINTS,
  ...OUTSIDE_ENDPOINTS,
  ...RELEASE_ENDPOINTS,
  ...WAY_ENDPOINTS,
}

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

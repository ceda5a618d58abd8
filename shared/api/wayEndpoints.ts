import { z } from 'zod'
import * as answering from './answering'
import * as documents from './documents'
import { Id } from './ids'
import * as keptAnswers from './keptAnswers'
import { LINK_ROUTES } from './linkRoutes'
import * as openings from './openings'
import * as session from './session'
import * as ways from './ways'

/** The ways into a form: links with a name, personal links, a passphrase, a short address. */
export const WAY_ENDPOINTS = {
  listWays: { method: 'GET', path: '/api/forms/:id/ways', params: Id, answer: z.array(ways.Way) },
  makeWay: {
    method: 'POST',
    path: '/api/forms/:id/ways',
    params: Id,
    body: ways.NewLink,
    answer: ways.Way,
  },
  changeWay: {
    method: 'PUT',
    path: '/api/forms/:id/ways/:way',
    params: ways.WayOfForm,
    body: ways.ChangeWay,
    answer: ways.Way,
  },
  removeWay: {
    method: 'DELETE',
    path: '/api/forms/:id/ways/:way',
    params: ways.WayOfForm,
    answer: session.Done,
  },
  invitePeople: {
    method: 'POST',
    path: '/api/forms/:id/invitations',
    params: Id,
    body: ways.InvitedPeople,
    answer: ways.InvitedCount,
  },
  postInvitations: {
    method: 'POST',
    path: '/api/forms/:id/invitations/posting',
    params: Id,
    body: ways.PostInvitations,
    answer: ways.PostedCount,
  },
  makeShortAddress: {
    method: 'POST',
    path: '/api/forms/:id/short-address',
    params: Id,
    answer: openings.ShortAddress,
  },
  savePassphrase: {
    method: 'PUT',
    path: '/api/forms/:id/passphrase',
    params: Id,
    body: ways.Passphrase,
    answer: session.Done,
  },
  mailCopy: {
    ...LINK_ROUTES.mailCopy,
    params: answering.LinkToken,
    body: answering.CopyByMail,
    answer: session.Done,
  },
  fetchDocument: {
    ...LINK_ROUTES.fetchDocument,
    params: answering.LinkToken,
    body: documents.DocumentAsked,
    answer: documents.DocumentOffered,
  },
  readToSign: {
    ...LINK_ROUTES.readToSign,
    params: answering.LinkToken,
    body: answering.Sending,
    answer: documents.DocumentsToSign,
  },
  checkFile: {
    method: 'POST',
    path: '/api/sealed',
    body: documents.FileHash,
    answer: documents.SealedFile,
  },
  keepAnswers: {
    ...LINK_ROUTES.keepAnswers,
    params: answering.LinkToken,
    body: keptAnswers.AnswersToKeep,
    answer: keptAnswers.WhereKept,
  },
  recallAnswers: {
    ...LINK_ROUTES.recallAnswers,
    params: answering.LinkToken,
    body: keptAnswers.Recalling,
    answer: keptAnswers.Recalled,
  },
  mailKept: {
    ...LINK_ROUTES.mailKept,
    params: answering.LinkToken,
    body: keptAnswers.MailKept,
    answer: session.Done,
  },
  enterPassphrase: {
    ...LINK_ROUTES.enterPassphrase,
    params: answering.LinkToken,
    body: ways.TypedPassphrase,
    answer: session.Done,
  },
} as const

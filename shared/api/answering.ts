import { z } from 'zod'
import { dayNumber } from '../../core/expressions/dates'
import { LIMITS } from '../../core/form/limits'
import type { Standing } from '../../core/form/standing'
import type { OfferedRow } from '../../core/form/rows'
import { OfferedDocument, SignatureGiven } from './documents'
import { PaymentAsked } from './payments'
import { ResponseLine } from './responses'
import { AnyAnswers, Counter, StoredForm } from './stored'

const IsoDay = z.string().refine(day => dayNumber(day) !== null, 'a date is written 2026-05-01')

/** The token of a link in an address; a further way goes on with a release under `token~2`. */
export const LinkToken = z.object({ token: z.string().regex(/^[\w-]{1,80}(?:~[1-9]\d{0,8})?$/) })

/** A file that the party of a link reads. */
export const FileOfLink = LinkToken.extend({ file: z.uuid() })

/** A key that a page makes for itself. */
const PageKey = z.string().min(8).max(80)
/** When a draft of a turn was kept; null for none. */
const DraftAt = z.string().max(40).nullable()

/** A response as the respondent's page sends it. Of a later turn with its page and the draft that it goes on from: another one that is newer is not lost unseen. */
export const Sending = z.strictObject({
  release: Counter.min(1),
  key: PageKey,
  begunOn: IsoDay,
  answers: AnyAnswers,
  seat: PageKey.optional(),
  base: DraftAt.optional(),
  signatures: z.array(SignatureGiven).max(LIMITS.documents).optional(),
  /** Of a guarded form: see `core/form/proofOfWork.ts`. */
  proof: z.string().max(20).optional(),
})
export type Sending = z.infer<typeof Sending>

/** When a response was taken and under which number, the name of the turn that is next (null when it is done), and one's own link, where it may be given back. `own`: the link by which it can be corrected, null where it can’t; `payment`: what is to be paid, null for nothing; `documents`: those that are offered. */
export const Sent = z.object({
  sentAt: z.string(),
  number: z.int(),
  next: z.string().nullable(),
  link: z.string().nullable(),
  own: z.string().nullable(),
  payment: PaymentAsked.nullable(),
  documents: z.array(OfferedDocument),
})
export type Sent = z.infer<typeof Sent>

/** The part of a form that a party sees, and what it may do in it; `refetchOn`: answers after which it is to be asked for anew. */
export const VisibleForm = z.object({
  definition: StoredForm,
  access: z.record(z.string(), z.enum(['reads', 'fills'])),
  refetchOn: z.array(z.string()),
})
export type VisibleForm = z.infer<typeof VisibleForm>

/** A question by its code and label. */
const NamedQuestion = z.object({ code: z.string(), label: z.string() })

/** An earlier turn that a response can be given back to, and the questions there that can be pointed at: those that this turn sees. */
export const EarlierTurn = z.object({
  turn: z.string(),
  name: z.string(),
  questions: z.array(NamedQuestion),
})
export type EarlierTurn = z.infer<typeof EarlierTurn>

/** What was typed in a turn and is kept on the server: when, by whom (empty where that is not known), from which page, under which key its files are. */
const TurnDraft = z.object({
  at: z.string(),
  by: z.string(),
  seat: z.string(),
  key: z.string(),
  answers: AnyAnswers,
})
export type TurnDraft = z.infer<typeof TurnDraft>

/**
 * The turn that a link opens. `givenBackTo`: whose turn it is meanwhile, where the response went back to an earlier one; `lines`: what stands
 * in it once it was handed off or given back; `pointed`: the questions that a remark is about.
 */
export const OpenedTurn = z.object({
  name: z.string(),
  isFirst: z.boolean(),
  handedOffAt: z.string().nullable(),
  givenBackTo: z.string().nullable(),
  remark: z.string().nullable(),
  pointed: z.array(NamedQuestion),
  returnsTo: z.array(EarlierTurn),
  draft: TurnDraft.nullable(),
  lines: z.array(ResponseLine),
  documents: z.array(OfferedDocument),
})

export type OpenedTurn = z.infer<typeof OpenedTurn>

/** What texts may quote besides answers, by name and member: see `core/form/standing.ts`. */
export const StandingValues = z.custom<Standing>(
  value => typeof value === 'object' && value !== null && !Array.isArray(value),
  'standing values by name',
)

/** A response that was sent, opened by its own link: under which number, when, when it was as it is now (a correction goes on from there), and whether it can be corrected. */
export const OwnResponse = z.object({
  number: z.int(),
  sentAt: z.string(),
  at: z.string(),
  mayCorrect: z.boolean(),
  payment: PaymentAsked.nullable(),
  documents: z.array(OfferedDocument),
})
export type OwnResponse = z.infer<typeof OwnResponse>

/** Asks for a copy of a response by e-mail, at an address that it gives. */
export const CopyByMail = z.strictObject({ key: PageKey, to: z.email().max(200) })

/** Everything that a page needs to be filled. `token`: under which it goes on, of the release where the form’s own link was opened; `brought`: what the link answers by itself. */
export const RespondentPage = VisibleForm.extend({
  token: z.string(),
  release: z.int(),
  today: z.string(),
  answers: AnyAnswers,
  turn: OpenedTurn.nullable(),
  standing: StandingValues,
  brought: z.record(z.string(), z.string()),
  isAnonymous: z.boolean(),
  isGuarded: z.boolean(),
  /** It is counted how far people come. */
  countsPages: z.boolean(),
  /** There may be documents to be signed before it is sent. */
  signs: z.boolean(),
  own: OwnResponse.nullable(),
})
export type RespondentPage = z.infer<typeof RespondentPage>

/** What somebody types to find a row of a long list, with the answers that narrow it. `path`: the question, in an entry `engines[1].fuel`. */
export const RowSearch = z.strictObject({
  path: z.string().max(LIMITS.label),
  typed: z.string().max(200),
  begunOn: IsoDay,
  answers: AnyAnswers,
})
export type RowSearch = z.infer<typeof RowSearch>

/** A row that is offered: read in full when its list was stored. */
export const FoundRow = z.custom<OfferedRow>(
  value => typeof value === 'object' && value !== null && 'code' in value && 'label' in value,
  'a row of a list',
)
/** The first rows that fit, and how many there are. */
export const FoundRows = z.object({ rows: z.array(FoundRow), count: z.int() })

/**
 * What was typed in a later turn, to be kept until it goes on. `seat` tells pages apart; `base`: when the draft was kept that this one goes on
 * from, null for none: another one that is newer is not overwritten.
 */
export const TurnToKeep = z.strictObject({
  seat: PageKey,
  base: DraftAt,
  key: PageKey,
  answers: AnyAnswers,
})
export type TurnToKeep = z.infer<typeof TurnToKeep>
/** When it was kept. */
export const KeptTurn = z.object({ at: z.string() })

/** A response given back to an earlier turn (the one before, where none is named): why, what is to be looked at, and what was typed so far, which comes back. */
export const Returning = z.strictObject({
  remark: z.string().trim().min(1, 'a remark says what is to be changed').max(LIMITS.text),
  to: z.string().max(LIMITS.code).optional(),
  pointed: z.array(z.string().max(LIMITS.code)).max(LIMITS.pointed).default([]),
  draft: TurnToKeep.nullable().default(null),
})
export type Returning = z.infer<typeof Returning>
/** The name of the turn that it was given back to. */
export const Returned = z.object({ to: z.string() })

/** Where a file belongs that a respondent gives: the question, the sending, and what it is called. The content is the body. */
export const GivenFile = z.object({
  question: z.string().max(LIMITS.code),
  key: z.string().min(8).max(80),
  name: z.string().min(1).max(LIMITS.label),
})
/** A file that was taken: under which id, what it was called, and its size. */
export const TakenFile = z.object({ file: z.string(), name: z.string(), bytes: z.int() })

import { z } from 'zod'
import { ChoiceList } from '../core/form/choiceLists'
import { LIMITS } from '../core/form/limits'
import { Edit } from '../core/form/edits'
import { isAnswer, type Answers } from '../core/form/answers'
import { dayNumber } from '../core/expressions/dates'

/** Signing in. */
export const SignIn = z.strictObject({ email: z.string().max(200), password: z.string().max(200) })

/** A new form: by its title, or a whole definition (read and reported on by itself). */
export const NewForm = z.union([
  z.strictObject({ title: z.string().trim().min(1, 'a form needs a title').max(LIMITS.label) }),
  z.strictObject({ definition: z.unknown() }),
])

/** Edits of a draft, on top of the revision that the browser knows. */
export const SaveEdits = z.strictObject({ base: z.int().min(0), edits: z.array(Edit).min(1).max(1_000) })

/** A release of the draft as the browser knows it; its risks have been accepted before. */
export const NewRelease = z.strictObject({ revision: z.int().min(0) })

/** A risk of a draft, accepted with a reason; without one the acceptance is taken back. `key` and `basis`: which risk, and the state of what it rests on. */
export const Accepting = z.strictObject({
  key: z.string().min(1).max(LIMITS.text),
  basis: z.string().max(64),
  reason: z.string().trim().max(LIMITS.text),
})

/** A list for all forms, on top of the revision that the browser knows (0: a new one). `from`: the form that has it already. */
export const SaveShared = z.strictObject({ base: z.int().min(0), from: z.uuid(), list: ChoiceList })

/** An answer of any type: JSON of bounded depth, read in full by the fill engine. */
const Answer = z.custom<Answers[string]>(
  value => isAnswer(value),
  'an answer is a text, number, yes or no, list or record',
)

/** A response as the respondent's page sends it. */
export const Sending = z.strictObject({
  release: z.int().min(1),
  key: z.string().min(8).max(80),
  begunOn: z.string().refine(day => dayNumber(day) !== null, 'a date is written 2026-05-01'),
  answers: z.record(z.string().max(LIMITS.code), Answer),
})

/** What somebody types to find a row of a long list, with the answers that narrow it. `path`: the question, in an entry `engines[1].fuel`. */
export const RowSearch = z.strictObject({
  path: z.string().max(LIMITS.label),
  typed: z.string().max(200),
  begunOn: z.string().refine(day => dayNumber(day) !== null, 'a date is written 2026-05-01'),
  answers: z.record(z.string().max(LIMITS.code), Answer),
})

/** A turn given back to the one before, with the reason. */
export const Returning = z.strictObject({
  remark: z.string().trim().min(1, 'a remark says what is to be changed').max(LIMITS.text),
})

/** Where a file belongs that a respondent gives: the question, the sending, and what it is called. The content is the body. */
export const GivenFile = z.object({
  question: z.string().max(LIMITS.code),
  key: z.string().min(8).max(80),
  name: z.string().min(1).max(LIMITS.label),
})

/** What every refused request says: a code for programs, a sentence for people, and the places where there are several. */
export const Refusal = z.object({
  code: z.string(),
  sentence: z.string(),
  problems: z.array(z.object({ path: z.string(), sentence: z.string() })).optional(),
})

export type Sending = z.infer<typeof Sending>
export type RowSearch = z.infer<typeof RowSearch>
export type Refusal = z.infer<typeof Refusal>

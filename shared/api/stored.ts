import { z } from 'zod'
import type { Form } from '../../core/form/definition'
import { FORMAT_VERSION } from '../../core/form/definition'
import type { Edit } from '../../core/form/edits'
import { Row, type ChoiceList } from '../../core/form/choiceLists'
import type { Finding } from '../../core/prove/finding'
import { isAnswer, type Answer } from '../../core/form/answers'
import { LIMITS } from '../../core/form/limits'

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/**
 * A definition that was read in full when it was stored (`readForm`): only its outermost shape is looked at again, since a long list has
 * a hundred thousand rows.
 */
export const StoredForm = z.custom<Form>(
  value => isRecord(value) && value.tobbin === FORMAT_VERSION && Array.isArray(value.sections),
  'a form definition of the present format',
)

/** A choice list that was read in full when it was stored. */
export const StoredList = z.custom<ChoiceList>(
  value => isRecord(value) && typeof value.code === 'string' && Array.isArray(value.rows),
  'a choice list',
)

/** A number that counts saves or versions, as the store holds it. */
export const Counter = z.int().min(0).max(2_147_483_647)
export const CounterInAddress = z.coerce.number().pipe(Counter)

/** Rows of lists of people that a response keeps, by list. */
export const KeptPeople = z.record(z.string(), z.array(Row))

/** Edits that were read in full when they were made. */
export const StoredEdits = z.array(
  z.custom<Edit>(value => isRecord(value) && typeof value.do === 'string', 'an edit of a draft'),
)

/** A finding as the prover gave it. */
export const StoredFinding = z.custom<Finding>(
  value => isRecord(value) && typeof value.code === 'string' && typeof value.sentence === 'string',
  'a finding',
)

/** An answer of any type: JSON of bounded depth, read in full by the fill engine. */
export const AnyAnswer = z.custom<Answer>(
  value => isAnswer(value),
  'an answer is a text, number, yes or no, list or record',
)

/** The answers of a response by question code. */
export const AnyAnswers = z.record(z.string().max(LIMITS.code), AnyAnswer)

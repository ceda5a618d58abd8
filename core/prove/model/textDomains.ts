import type { Value } from '../../expressions/types'
import type { PlannedQuestion } from '../../fill/planned'
import { LIMITS } from '../../form/limits'
import { EXACT, exact, SOMETHING, type Domain } from './domain'
import { isPossible } from './sampleAnswers'
import type { TextForm, TextTest } from './textAutomata'
import { isPieceTest, textClasses } from './textClasses'

/** A question that is answered with text, and what is asked of it. */
interface TextQuestion {
  asked: readonly Value[]
  texts: readonly TextTest[]
  step: PlannedQuestion
}

/** Texts of a form: one for every combination of outcomes that the tests asked of them can have. */
export function formedText({ asked, texts, step }: TextQuestion, form: TextForm): Domain {
  const named = asked.filter(v => typeof v === 'string')
  const all = textClasses(texts, named, form)
  // A text that a condition names may be one that its question refuses.
  const classes = all?.filter(c => isPossible(c, step) || !named.includes(c))
  // One that can't be answered after all would be a form that is told wrongly here: nothing is proved by it then.
  const isRight = classes?.every(c => isPossible(c, step))
  if (classes && isRight) return { ...exact(classes, false), uniform: true }
  const told = textDomain(() => null)({ asked, step })
  return classes ? told : { ...told, pieces: { tests: texts.filter(isPieceTest), named, form } }
}
/** Texts of any form but that of their question. */
export function freeText(
  q: TextQuestion,
  { minLength, maxLength, pattern }: { minLength?: number; maxLength?: number; pattern?: string },
): Domain {
  const [least, most] = [minLength ?? 1, maxLength ?? LIMITS.text]
  return formedText(q, { least, most, pattern, samples: [otherText(least, most), ...SAMPLES] })
}

/** Texts: those that conditions name, and one other of the right form. */
const textDomain =
  (other: (named: readonly string[], step: PlannedQuestion) => string | null) =>
  ({ step, asked }: Pick<TextQuestion, 'step' | 'asked'>): Domain => {
    const named = asked.filter(v => typeof v === 'string')
    const sample = other(named, step)
    const classes = [sample ?? SOMETHING, ...named].filter(v => v === SOMETHING || isPossible(v, step))
    return { ...EXACT, classes, singletons: false, open: classes.includes(SOMETHING) }
  }
/** Texts among which only those that conditions name are told apart. */
export const oneOfTexts = (candidates: readonly string[]) =>
  textDomain((named, step) => candidates.find(c => !named.includes(c) && isPossible(c, step)) ?? null)
/** How many texts of a list are told apart one by one. */
const MOST_LISTED = 400
/** Texts that are looked up in a list: just those that are in it. */
export function listedTexts(
  { asked, step }: Pick<TextQuestion, 'asked' | 'step'>,
  codes: readonly string[],
): Domain {
  const possible = codes.filter(code => isPossible(code, step))
  if (possible.length <= MOST_LISTED) return exact(possible, true)
  const named = asked.filter(v => typeof v === 'string' && possible.includes(v))
  const other = possible.find(code => !named.includes(code)) ?? SOMETHING
  return { ...EXACT, classes: [other, ...named], singletons: false, open: true }
}

/** The forms of e-mail addresses and phone numbers as `core/fill` reads them, blanks around them cut off. */
const BLANK = '\\t-\\r \u00A0\u1680\u2000-\u200A\u2028\u2029\u202F\u205F\u3000\uFEFF'
export const EMAIL: TextForm = {
  least: 1,
  most: 254,
  pattern: `[^${BLANK}@]+@[^${BLANK}@.]+(\\.[^${BLANK}@.]+)+`,
  samples: ['someone@wherry.example', 'other@wherry.example'],
}
const MARKS = String.raw`().\-/`
export const PHONE: TextForm = {
  least: 1,
  most: LIMITS.text,
  pattern: `(\\+[${BLANK}${MARKS}]*|[${MARKS}][${BLANK}${MARKS}]*)?(\\d[${BLANK}${MARKS}]*){4,19}\\d([${BLANK}${MARKS}]*[${MARKS}])?`,
  samples: ['01632 960001', '01632 960002'],
}
const SAMPLES = ['AB 1234', '12345', 'A1', 'ABC', '1', 'abc', '01-234', 'WR-2026-001']

/** A text that reads well, within the lengths. */
const otherText = (least: number, most: number): string =>
  'Something'.slice(0, most).padEnd(Math.min(least, 40), 'x')

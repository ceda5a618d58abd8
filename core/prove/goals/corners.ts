import { numberFromDouble, numberText, type Num } from '../../expressions/decimal'
import type { PlannedQuestion } from '../../fill/planned'
import { isRecord, type Answer, type Answers } from '../../form/answers'
import { parseEntryCode } from '../model/entryCodes'
import type { Model } from '../model/model'
import { isParted } from '../model/parts'
import { isPossible, sampleAnswer } from '../model/sampleAnswers'
import type { Range } from '../model/domain'
import type { Slice } from './reachState'
import type { StateSpace } from './stateSpace'

/** So many variants of a slice are tried, by what the solver chose and beyond it. */
const MOST_TRIED = 48
/** How far from its one end a stretch without another end is looked into. */
const FAR = 1_000

/**
 * Variants of a slice in which the numbers that products and quotients are made of lie at the ends of the stretches that the solver chose for
 * them, then at the ends of all that can be answered: such a calculation is least and most in the corners.
 */
export function* cornersOf(space: StateSpace, slice: Slice): Generator<Slice> {
  for (const rangesOf of [chosenRange, allRanges]) yield* cornersWithin(space, slice, rangesOf)
}

/** A question whose number is looked into, and the answers that are tried. */
interface Choice {
  code: string
  ends: readonly Answer[]
}
type RangesOf = (space: StateSpace, code: string) => readonly Range[]

function* cornersWithin(space: StateSpace, slice: Slice, rangesOf: RangesOf): Generator<Slice> {
  const choices = space.encoding.opaqueNames().flatMap((code): Choice[] => {
    const question = space.model.stepOf(code)
    const ends = question ? endsOf(space, question, rangesOf(space, code)) : []
    return ends.length > 0 ? [{ code, ends }] : []
  })
  const varied = (answers: Record<string, Answer>): Slice => ({
    ...slice,
    answers: Object.entries(answers).reduce(
      (all, [code, answer]) => withAnswer(space.model, all, code, answer),
      slice.answers,
    ),
  })
  for (const at of [0, -1])
    yield varied(Object.fromEntries(choices.map(c => [c.code, c.ends.at(at) ?? null])))
  let tried = 2
  for (const [i, { code, ends }] of choices.entries())
    for (const end of ends)
      for (const other of [null, ...choices.slice(i + 1)]) {
        for (const second of other?.ends ?? [null]) {
          if (tried >= MOST_TRIED) return
          tried += 1
          yield varied({ [code]: end, ...(other ? { [other.code]: second } : {}) })
        }
      }
}

/** Answers with another one to a question, in the entry that its code says. */
function withAnswer(model: Model, answers: Answers, code: string, answer: Answer): Answers {
  const group = model.stepOf(code)?.place.entryOf?.code
  if (group === undefined) return { ...answers, [code]: answer }
  const { base, entry } = parseEntryCode(code)
  const given = answers[group]
  if (!Array.isArray(given)) return answers
  const entries: readonly Answer[] = given
  const changed = entries.map((e, i) => (isRecord(e) && i === entry - 1 ? { ...e, [base]: answer } : e))
  return { ...answers, [group]: changed }
}

/** The stretch in which the model found last has a number; none where it is blank. */
function chosenRange({ encoding }: StateSpace, code: string): readonly Range[] {
  const { classes, domain } = encoding.variable(code)
  const range = domain.ranges?.[classes.findIndex(c => encoding.solver.isTrue(c.literal))]
  return range ? [range] : []
}

/** The first and the last stretch in which a number may lie, and all from one to the other. */
function allRanges({ encoding }: StateSpace, code: string): readonly Range[] {
  const ranges = encoding.variable(code).domain.ranges ?? []
  const [first, last] = [ranges[0], ranges.at(-1)]
  return first && last ? [first, { low: first.low, high: last.high, isPoint: false }, last] : []
}

/** So long is a text that is tried at most. */
const LONGEST = 200

/** A short, a middling and a long text. */
function textsOfLengths({ minLength, maxLength }: { minLength?: number; maxLength?: number }): string[] {
  const [least, most] = [minLength ?? 1, Math.min(maxLength ?? LONGEST, LONGEST)]
  return [least, Math.ceil((least + most) / 2), most].map(letters => 'x'.repeat(letters))
}

/** The least, middle and greatest answers of some stretches; texts of such lengths. */
function endsOf({ encoding }: StateSpace, question: PlannedQuestion, ranges: readonly Range[]): Answer[] {
  const { place } = question
  if (place.node.type === 'text' || place.node.type === 'longText')
    return textsOfLengths(place.node).filter(text => isPossible(text, question))
  if (!NUMBERS.has(place.node.type) || isParted(place.node)) return []
  const places = encoding.variable(place.code).domain.places ?? 2
  return [...new Set(ranges.flatMap(range => numbersIn(range, places)))]
    .map(n => numberFromDouble(Number(n.toFixed(places))))
    .filter((n): n is Num => n !== null && isPossible(n, question))
    .map(n => sampleAnswer(question, n))
}

const NUMBERS: ReadonlySet<string> = new Set(['integer', 'decimal', 'money', 'scale'])

function numbersIn({ low, high, isPoint }: Range, places: number): number[] {
  const [from, to] = [low, high].map(end => (end === null ? null : Number(numberText(end))))
  const step = isPoint ? 0 : 10 ** -places
  const least = from == null ? (to ?? 0) - FAR : from + step
  const most = to == null ? (from ?? 0) + FAR : to - step
  return [least, (least + most) / 2, most]
}

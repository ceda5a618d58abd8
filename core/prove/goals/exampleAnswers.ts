import type { Value } from '../../expressions/types'
import { amountIn } from '../../fill/amounts'
import { answerOf } from '../../fill/answers'
import { CURRENCY_MEMBER } from '../../form/currencies'
import { someAmount } from '../model/domains'
import type { Answer, Answers } from '../../form/answers'
import { nestAnswers } from '../../fill/draw'
import { sampleAnswer } from '../model/sampleAnswers'
import type { Encoding } from '../encode/encoding'
import { parseEntryCode, rowCode } from '../model/entryCodes'
import type { PlannedQuestion } from '../../fill/planned'
import type { Model } from '../model/model'

/**
 * The answers of the model that the solver found last. A question with a default that is to be blank says so.
 * @param current the current section: what is asked there of an entry needs one, though all in it is blank
 * @param codes the questions and groups that are looked at; all of the encoding without
 */
export function exampleOf(
  model: Model,
  encoding: Encoding,
  current: number,
  codes: readonly string[] = encoding.codes(),
): Answers {
  const { plan, copies } = model
  const byEntry: Record<string, Answer>[] = [{}]
  const values = encoding.answers(codes)
  for (const code of codes) {
    const step = model.stepOf(code)
    const { base, entry, grid } = parseEntryCode(code)
    if (!step || grid !== null) continue
    const flat = (byEntry[entry - 1] ??= {})
    const value = values.get(code)
    if (copies.rowsOf(code).length > 0 && !encoding.solver.isTrue(encoding.variable(code).blank))
      flat[base] = amountOf(model, code, values) ?? gridOf(model, code, values)
    else if (value !== undefined) flat[base] = sampleAnswer(step, value)
    else if (step.default !== null || isInEntry(model, step, current)) flat[base] = null
  }
  const counts = encoding.groups.counts()
  const sections = new Set(codes.map(code => sectionOf(model, code)))
  const touched = plan.sections.filter(s => sections.has(s.place.section))
  return nestAnswers(touched, byEntry[0] ?? {}, ({ place: { code } }) => {
    const [count, entries] = [counts.get(code), copies.of.get(code)]
    if (count === undefined || !entries) return null
    // Entries that are not told apart are like one that is, but for numbers that have to add up.
    const further = encoding.further.further(entries, count).map(({ like, other }) => {
      const same = byEntry[like] ?? {}
      const differing = [...other].flatMap(([member, value]): [string, Answer][] => {
        const step = model.stepOf(member)
        return step && same[member] != null ? [[member, sampleAnswer(step, value)]] : []
      })
      return { ...same, ...Object.fromEntries(differing) }
    })
    return [
      ...Array.from({ length: Math.min(count, entries.copies) }, (_, i) => byEntry[i] ?? {}),
      ...further,
    ]
  })
}

const isInEntry = ({ copies }: Model, { place }: PlannedQuestion, current: number): boolean =>
  place.section === current && place.entryOf !== null && !copies.of.has(place.entryOf.code)

const sectionOf = ({ stepOf, copies }: Model, code: string): number =>
  (stepOf(code)?.place ?? copies.of.get(code)?.group.place)?.section ?? -1

/** An amount in the currency that was found, where no rule asks for that with any amount; null for what is none. */
function amountOf({ stepOf }: Model, code: string, values: ReadonlyMap<string, Value>): Answer {
  const step = stepOf(code)
  const currency = values.get(rowCode(code, CURRENCY_MEMBER))
  if (step?.place.node.type !== 'money' || typeof currency !== 'string') return null
  const amount =
    values.get(rowCode(code, currency)) ?? amountIn(someAmount(step.place.node), step.place.node).amount
  return { amount: answerOf(amount), currency }
}

/** The rows of a grid, those that no rule asks for with any answer. */
function gridOf({ stepOf, copies }: Model, code: string, values: ReadonlyMap<string, Value>): Answer {
  const node = stepOf(code)?.place.node
  if (node?.type !== 'grid') return null
  const asked = new Set(copies.rowsOf(code).map(row => parseEntryCode(row).row))
  const answer: Record<string, Answer> = {}
  for (const { code: row } of node.rows) {
    const given = asked.has(row) ? values.get(rowCode(code, row)) : node.options[0]?.code
    if (typeof given === 'string') answer[row] = given
  }
  return answer
}

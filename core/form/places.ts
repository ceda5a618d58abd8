import { z } from 'zod'
import { isRecord, type Answer, type Answers } from './answers'
import type { Form, Item, Section } from './definition'
import { ChoiceCode, Code } from './fields'
import { LIMITS } from './limits'
import type { Option } from './questions'
import { listPlaces } from './walk'

/** An option that can be chosen so often: of how many responses, and how often it is chosen. An entry of a repeating group counts by itself. */
export const LimitedOption = z.object({
  question: Code,
  /** The repeating groups that the question is asked in, outermost first. */
  groups: z.array(Code).max(LIMITS.depth),
  option: ChoiceCode,
  places: z.int().min(1).max(LIMITS.places),
  taken: z.int().min(0),
})
export type LimitedOption = z.infer<typeof LimitedOption>

/** The options of a question that can run out. */
export const limitedIn = (item: Item | Section): Option[] =>
  'kind' in item && item.kind === 'question' && (item.type === 'choice' || item.type === 'choices')
    ? (item.options ?? []).filter(o => o.places !== undefined)
    : []

/** Every option of a form that can run out, none of it chosen yet. */
export function limitedOptions(form: Form): LimitedOption[] {
  return listPlaces(form).flatMap(({ code, node, groups }) => {
    const repeating = groups.filter(g => g.node.repeat !== undefined).map(g => g.code)
    return limitedIn(node).flatMap(({ code: option, places }) =>
      places === undefined ? [] : [{ question: code, groups: repeating, option, places, taken: 0 }],
    )
  })
}

/** How often answers choose an option. */
export function countChosen(answers: Answers, { question, groups, option }: LimitedOption): number {
  const [outer, ...inner] = groups
  if (outer === undefined) return [answers[question]].flat().filter(a => a === option).length
  return entriesOf(answers[outer]).reduce(
    (sum, entry) => sum + countChosen(entry, { question, groups: inner, option, places: 0, taken: 0 }),
    0,
  )
}

const entriesOf = (answer: Answer | undefined): Answers[] =>
  Array.isArray(answer) ? answer.filter(isRecord) : []

/**
 * A form as it is offered while options are taken: each says how many places it has left, and one that has none is not offered. What a
 * response has chosen already is its own.
 */
export function withPlacesLeft(form: Form, limited: readonly LimitedOption[], own: Answers): Form {
  if (limited.length === 0) return form
  const left = new Map(
    limited.map(l => [`${l.question} ${l.option}`, l.places - l.taken + countChosen(own, l)]),
  )
  return mapOptions(form, (question, option) => {
    const places = left.get(`${question} ${option.code}`)
    if (places === undefined) return option
    return places > 0 ? { ...option, places } : withoutOffer({ ...option, places: 0 })
  })
}

/** An option that is never offered. */
export const withoutOffer = (option: Option): Option => ({ ...option, shownWhen: 'false' })

/** A form with other options in its questions. */
export function mapOptions(form: Form, map: (question: string, option: Option) => Option): Form {
  const visit = (item: Item): Item => {
    if (item.kind === 'group') return { ...item, items: item.items.map(visit) }
    if (item.kind !== 'question' || (item.type !== 'choice' && item.type !== 'choices')) return item
    const { options } = item
    return options ? { ...item, options: options.map(o => map(item.code, o)) } : item
  }
  return { ...form, sections: form.sections.map(s => ({ ...s, items: s.items.map(visit) })) }
}

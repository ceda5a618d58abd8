import { isNeverInPlay } from './neverInPlay'
import { namesIn } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import type { PlannedQuestion, PlannedRule } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { Item } from '../../form/definition'
import type { Inquiry } from '../goals/inquiry'
import { example, hull, section, text } from './exampleForms'

/** Something whose own rule asks for one question only, and for which classes of its answers the rule is true. */
export interface Branch {
  place: Place
  holds: readonly boolean[]
  onBlank: boolean
  kind: 'shownWhen' | 'route'
  index: number
}
/** A question that decides alone what shows: its classes of answers, and what hangs on it. */
export interface Gate {
  question: PlannedQuestion
  classes: readonly Value[]
  branches: readonly Branch[]
}

const FOUND = new WeakMap<Inquiry, Gate[]>()

/** Every gate of a form. Exact: a rule that names one question is told by that question's classes. */
export function gatesOf(inquiry: Inquiry): Gate[] {
  const known = FOUND.get(inquiry)
  if (known) return known
  const { plan, circular, domain } = inquiry.model
  const byGate = new Map<
    string,
    { place: Place; rule: PlannedRule; kind: 'shownWhen' | 'route'; index: number }[]
  >()
  const note = (place: Place, rule: PlannedRule | null, kind: 'shownWhen' | 'route', index: number) => {
    if (!rule?.expr || isNeverInPlay(inquiry, place.order) || circular.has(place.code)) return
    const [name, ...others] = namesIn(rule.expr)
    if (name !== undefined && others.length === 0)
      byGate.set(name, [...(byGate.get(name) ?? []), { place, rule, kind, index }])
  }
  for (const section of plan.sections) {
    for (const step of [section, ...section.all]) note(step.place, step.shown, 'shownWhen', 0)
    for (const route of section.routes) note(section.place, route.when, 'route', route.index)
  }
  const gates = [...byGate].flatMap(([name, ruled]): Gate[] => {
    const question = plan.byCode.get(name)
    const { classes, opaque, many, open } = domain(name)
    if (!question || opaque || many || open) return []
    const values = new Array<Value>(plan.size).fill(null)
    const outcome = (rule: PlannedRule, value: Value) => {
      values[question.slot] = value
      return rule.run(values) === true
    }
    return [
      {
        question,
        classes,
        branches: ruled.map(({ place, rule, kind, index }) => ({
          place,
          kind,
          index,
          holds: classes.map(c => outcome(rule, c)),
          onBlank: outcome(rule, null),
        })),
      },
    ]
  })
  FOUND.set(inquiry, gates)
  return gates
}

/** Whether a branch is taken for a choice; one that no rule names is of the first class. */
export const isTakenFor = ({ classes }: Gate, { holds }: Branch, choice: string): boolean =>
  holds[Math.max(0, classes.indexOf(choice))] === true

/** What stands side by side: in the same group or section, or sections themselves. */
export const areSiblings = (a: Place, b: Place): boolean =>
  a.kind === 'section' || b.kind === 'section'
    ? a.kind === b.kind
    : a.section === b.section && a.groups.at(-1) === b.groups.at(-1)

/** Branches that are groups or sections, in pairs of siblings. */
export function pairsOf({ branches }: Gate): [Branch, Branch][] {
  const large = branches
    .filter(b => b.kind === 'shownWhen')
    .filter(b => b.place.kind === 'group' || b.place.kind === 'section')
  return large.flatMap((a, i) =>
    large.slice(i + 1).flatMap((b): [Branch, Branch][] => (areSiblings(a.place, b.place) ? [[a, b]] : [])),
  )
}

const child = (code: string, items?: Item[]) =>
  items ?? [text(`${code}_note`), text(`${code}_age`, { label: `Age of the ${code}` })]
/** A group that shows by a rule, for the examples. */
export const branchGroup = (code: string, shownWhen: string, items?: Item[]): Item => ({
  kind: 'group',
  code,
  title: `About the ${code}`,
  shownWhen,
  items: child(code, items),
})
/** A question for the hull, and a group for each of some materials. */
export const hullBranches = (required: true | undefined, ...codes: string[]) =>
  example(section('boat', [hull({ required }), ...codes.map(c => branchGroup(c, `hull = "${c}"`))]))

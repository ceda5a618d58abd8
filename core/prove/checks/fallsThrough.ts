import { namesIn } from '../../expressions/tree'
import type { Finding } from '../finding'
import type { Value } from '../../expressions/types'
import type { PlannedSection } from '../../fill/planned'
import { optionsOf } from '../../form/rows'
import { stemsAt, stemsOfOption } from '../model/words'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, hull, section, text } from './exampleForms'
import type { Section } from '../../form/definition'

const kind = { code: 'falls-through', severity: 'risk' } as const
const routed = (exit: Partial<Section>) =>
  example(
    section('boat', [hull()], {
      routes: [{ when: 'hull = "wood"', to: 'wood' }, { when: 'hull = "steel"', to: 'steel' }, { to: 'end' }],
    }),
    section('wood', [text('planking')], exit),
    section('steel', [text('plating')]),
    section('end', [text('remarks')]),
  )

export const fallsThrough: Check = {
  ...kind,
  about:
    'A section leads by routes to several branches, and one of them runs on into its sibling: a risk where its words or the exits of others say that it should not, else advice.',
  raises: routed({}),
  spares: routed({ routes: [{ to: 'end' }] }),
  run: inquiry =>
    inquiry.model.plan.sections.flatMap(from => {
      const { sections, fit } = branchesOf(inquiry, from)
      return sections.flatMap((a, i) => {
        const b = sections[i + 1]
        return b === undefined ? [] : runsOn(inquiry, from, { a, b, sections, fit })
      })
    }),
}

/** Two branches one after the other, among all of a section, and those whose words are the ones of the choice that leads there. */
interface Pair {
  a: number
  b: number
  sections: readonly number[]
  fit: ReadonlySet<number>
}

function runsOn(inquiry: Inquiry, from: PlannedSection, { a, b, sections, fit }: Pair): Finding[] {
  const { plan } = inquiry.model
  const [first, second] = [plan.sections[a], plan.sections[b]]
  if (!first || !second || isLedTo(inquiry, from.place.section, b)) return []
  const others = sections.filter(s => s !== a && s !== b)
  const hasExits = others.some(s => plan.sections[s]?.routes.some(r => r.target > s + 1))
  const isLast = b === plan.sections.length - 1
  // Where all ways come together anyway, or the form only goes on, words alone tell a branch from the rest of the form.
  const isBranch = fit.has(b) || (sections.length > 2 && !isLast && !isJoin(inquiry, from.place.section, b))
  if (!isBranch) return []
  const way = wayUpTo(inquiry, b)
  const goal: Goal = {
    key: `through:${from.place.code}:${a}:${b}:${way.text}`,
    at: from.place,
    section: b,
    names: way.names,
    literals: space => [space.sectionShown(a), space.sectionShown(b)],
    holds: state => state.path.includes(a) && state.path.includes(b),
  }
  if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
  const routes = from.routes.filter(r => r.target === a || r.target === b)
  return [
    finding(
      fit.has(b) || hasExits ? kind : { ...kind, severity: 'advice' },
      first.place,
      `${quotedName(first.place)} and ${quotedName(second.place)} are branches of ${quotedName(from.place)}, but the first runs on into the second.`,
      {
        conflict: [...routes.map(r => partAt(from.place, 'route', r.index)), partAt(first.place)],
        witness: inquiry.witness(goal),
        mend: exitOf(inquiry, first, second),
      },
    ),
  ]
}

/** What shows the sections up to one and leads from one to the next: it decides which of them a response comes through, and is told by no single place. */
function wayUpTo({ model: { plan } }: Inquiry, last: number): { names: string[]; text: string } {
  const sections = plan.sections.slice(0, last + 1)
  const rules = sections.flatMap(s => [s.shown, ...s.routes.map(r => r.when)])
  return {
    names: [...new Set(rules.flatMap(r => (r?.expr ? namesIn(r.expr) : [])))],
    text: JSON.stringify(sections.map(s => [s.place.node.shownWhen, s.place.node.routes])),
  }
}

/** Whether one of the ways from a section leads to another by a route of its own: the ways come together there. */
const isLedTo = ({ model: { plan } }: Inquiry, from: number, at: number): boolean =>
  plan.sections.slice(from + 1, at - 1).some(s => s.routes.some(r => r.target === at))

/** Whether all ways from a section come through another. */
function isJoin(inquiry: Inquiry, from: number, at: number): boolean {
  const end = inquiry.model.plan.sections.length
  const way = wayUpTo(inquiry, at)
  return (
    inquiry.decide(
      {
        key: `join:${from}:${at}:${way.text}`,
        at: null,
        section: end,
        names: way.names,
        literals: space => [space.reached(end), space.sectionShown(from), -space.sectionShown(at)],
        holds: state => state.path.includes(from) && !state.path.includes(at),
      },
      { aside: true },
    ).is === 'impossible'
  )
}

/** The sections that the conditional routes of one lead to, where all ask for the same questions, with the one that simply follows. */
function branchesOf(
  inquiry: Inquiry,
  { routes, place }: PlannedSection,
): { sections: readonly number[]; fit: ReadonlySet<number> } {
  const { plan } = inquiry.model
  const conditional = routes.filter(r => r.when?.expr && r.target < plan.sections.length)
  const asked = new Set(conditional.map(r => (r.when?.expr ? namesIn(r.when.expr).join() : '')))
  const targets = [...new Set(conditional.map(r => r.target))].sort((a, b) => a - b)
  if (asked.size !== 1) return { sections: [], fit: new Set() }
  const [code = ''] = asked
  const fit = new Set(conditional.filter(r => hasWordsOf(inquiry, code, r)).map(r => r.target))
  // Where one branch leads past the others, or has the words of its choice, what is not led to comes next: it is a branch as well.
  const next = place.section + 1
  const hasExit = targets.some(t => plan.sections[t]?.routes.some(r => r.target > t + 1))
  const follows = !routes.some(r => r.when === null) && !targets.includes(next)
  const isBranching = targets.length >= 2 ? hasExit || fit.size > 0 : fit.size > 0
  if (follows && isBranching) return { sections: [next, ...targets], fit }
  return { sections: targets.length >= 2 ? targets : [], fit }
}

/** Whether a route leads to a section with the words of the only choice for which it is taken. */
function hasWordsOf(
  { form, model: { plan } }: Inquiry,
  code: string,
  { when, target }: PlannedSection['routes'][number],
): boolean {
  const question = plan.byCode.get(code)
  const section = plan.sections[target]
  if (!question || !section || !when || question.place.node.type !== 'choice') return false
  const values = new Array<Value>(plan.size).fill(null)
  const taken = (optionsOf(form, question.place.node) ?? []).filter(option => {
    values[question.slot] = option.code
    return when.run(values) === true
  })
  const [only, ...more] = taken
  if (!only || more.length > 0) return false
  const words = stemsOfOption(only)
  return [...stemsAt(section.place)].some(s => words.has(s) && !stemsAt(question.place).has(s))
}

/** An exit that leads past the sibling, where there is something past it. */
function exitOf(
  { model: { plan } }: Inquiry,
  first: PlannedSection,
  second: PlannedSection,
): Finding['mend'] {
  const after = plan.sections[second.place.section + 1]
  if (!after || first.routes.length > 0) return null
  return {
    words: `Lead on to “${after.place.node.title}”`,
    edits: [{ do: 'change', what: first.place.address, set: { routes: [{ to: after.place.code }] } }],
  }
}

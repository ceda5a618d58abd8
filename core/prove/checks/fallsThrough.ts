import { namesIn } from '../../expressions/tree'
import type { Finding } from '../finding'
import type { PlannedSection } from '../../fill/planned'
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
  about: 'A section leads by routes to several branches, and one of them runs on into its sibling.',
  raises: routed({}),
  spares: routed({ routes: [{ to: 'end' }] }),
  run: inquiry =>
    inquiry.model.plan.sections.flatMap(from => {
      const branches = branchesOf(inquiry, from)
      return branches.flatMap((a, i) =>
        branches.slice(i + 1, i + 2).flatMap((b): Finding[] => {
          const way = wayUpTo(inquiry, b)
          const goal: Goal = {
            key: `through:${from.place.code}:${a}:${b}:${way.text}`,
            at: from.place,
            section: b,
            names: way.names,
            literals: space => [space.sectionShown(a), space.sectionShown(b)],
            holds: state => state.path.includes(a) && state.path.includes(b),
          }
          const [first, second] = [a, b].map(s => inquiry.model.plan.sections[s])
          if (
            !first ||
            !second ||
            isJoin(inquiry, from.place.section, b) ||
            inquiry.decide(goal, { aside: true }).is !== 'possible'
          )
            return []
          return [
            finding(
              kind,
              first.place,
              `${quotedName(first.place)} and ${quotedName(second.place)} are branches of ${quotedName(from.place)}, but the first runs on into the second.`,
              {
                conflict: [
                  ...from.routes
                    .filter(r => r.target === a || r.target === b)
                    .map(r => partAt(from.place, 'route', r.index)),
                  partAt(first.place),
                ],
                witness: inquiry.witness(goal),
                mend: exitOf(inquiry, first, second),
              },
            ),
          ]
        }),
      )
    }),
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

/** Whether the ways from a section come together in another: one of them leads there from a branch, or all do. */
function isJoin(inquiry: Inquiry, from: number, at: number): boolean {
  if (inquiry.model.plan.sections.slice(from + 1, at - 1).some(s => s.routes.some(r => r.target === at)))
    return true
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

/** The sections that the conditional routes of one lead to, where all ask for the same questions. */
function branchesOf(inquiry: Inquiry, { routes, place }: PlannedSection): number[] {
  const conditional = routes.filter(r => r.when?.expr && r.target < inquiry.model.plan.sections.length)
  const asked = new Set(conditional.map(r => (r.when?.expr ? namesIn(r.when.expr).join() : '')))
  const targets = [...new Set(conditional.map(r => r.target))].sort((a, b) => a - b)
  if (asked.size !== 1 || targets.length < 2) return []
  // Where one branch already leads past the others, what is not led to comes next: the section that follows is a branch as well.
  const next = place.section + 1
  const hasExit = targets.some(t =>
    (inquiry.model.plan.sections[t]?.routes ?? []).some(r => r.target > t + 1),
  )
  return hasExit && !routes.some(r => r.when === null) && !targets.includes(next)
    ? [next, ...targets]
    : targets
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

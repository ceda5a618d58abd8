import type { Finding } from '../finding'
import { called, finding, partAt, type Check } from '../inquiry'
import { gatesOf, hullBranches } from './branches'

const kind = { code: 'open-gate', severity: 'risk' } as const

export const openGate: Check = {
  ...kind,
  about: 'Every answer of a question leads to a branch, but it may be left blank: then no branch shows.',
  raises: hullBranches(undefined, 'wood', 'steel', 'grp'),
  spares: hullBranches(true, 'wood', 'steel', 'grp'),
  run: inquiry => gatesOf(inquiry).flatMap(({ question, classes, branches }): Finding[] => {
    const { place, required, default: begins } = question
    const { type } = place.node
    if (required !== null || begins !== null || (type !== 'choice' && type !== 'yesNo') || classes.length < 2 || inquiry.impossible.has(place.order)) return []
    const own = branches.filter(b => !b.onBlank && b.holds.includes(false))
    if (branches.some(b => b.onBlank) || !classes.every((_, i) => own.some(b => b.holds[i]))) return []
    return [finding(kind, place, `${called(place)} decides between ${own.length} branches but may be left blank: then none of them shows.`, {
      conflict: [partAt(place), ...own.map(b => partAt(b.place, 'shownWhen'))], witness: inquiry.wayTo(place.section), mend: { words: 'Require it', edits: [{ do: 'change', what: place.address, set: { required: true } }] },
    })]
  }),
}

import { NEVER_IN_PLAY } from './neverInPlay'
import type { Item } from '../../form/definition'
import type { Place } from '../../form/walk'
import { optionsOf } from '../../form/rows'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import { branchGroup, gatesOf, pairsOf } from './branches'
import { example, hull, section } from './exampleForms'

const kind = { code: 'twin-branches', severity: 'advice' } as const
const twins = (rule: string) =>
  example(section('boat', [hull(), branchGroup('wood', 'hull = "wood"'), branchGroup('steel', rule)]))
/** A branch of fewer questions may be alike by chance. */
const FEWEST = 2

export const twinBranches: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'Two branches side by side have the same condition, or the same contents under different ones: a copy that was not adapted?',
  raises: twins('hull = "wood"'),
  spares: example(section('boat', [hull(), branchGroup('wood', 'hull = "wood"')])),
  run: inquiry =>
    gatesOf(inquiry).flatMap(gate =>
      pairsOf(gate).flatMap(([a, b]): Finding[] => {
        const conflict = [partAt(a.place, 'shownWhen'), partAt(b.place, 'shownWhen')]
        const same = a.holds.every((h, i) => h === b.holds[i]) && a.onBlank === b.onBlank
        const told = (sentence: string) => [
          finding(kind, b.place, sentence, {
            rule: `${b.place.address}:shownWhen`,
            conflict,
            witness: inquiry.wayTo(b.place.section),
          }),
        ]
        // The same condition twice is odd only where other answers have no branch at all.
        const isForgotten = gate.classes.some((_, i) => !gate.branches.some(o => o.holds[i]))
        if (same)
          return isForgotten
            ? told(
                `${quotedName(a.place)} and ${quotedName(b.place)} have the same condition, while other answers to ${quotedName(gate.question.place)} lead nowhere: a copy that was not adapted?`,
              )
            : []
        const [left, right] = [a, b].map(o => contents(inquiry, o.place))
        if (left === undefined || left !== right || left.split('\n').length < FEWEST) return []
        return told(
          `${quotedName(a.place)} and ${quotedName(b.place)} ask the same questions: one group for both, or a list narrowed by ${quotedName(gate.question.place)}, is easier to keep right.`,
        )
      }),
    ),
}

/** What a branch asks, codes left out. */
function contents({ form }: Inquiry, { node }: Place): string {
  const told = (item: Item): string[] => {
    if (item.kind === 'group') return item.items.flatMap(told)
    if (item.kind === 'note') return []
    const options =
      item.type === 'choice' || item.type === 'choices' ? (optionsOf(form, item) ?? []).map(o => o.label) : []
    return [JSON.stringify([item.type, item.label, options])]
  }
  return 'items' in node ? node.items.flatMap(told).join('\n') : ''
}

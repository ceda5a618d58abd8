import { NEVER_IN_PLAY, isNeverInPlay } from './neverInPlay'
import { optionsOf } from '../../form/rows'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { branchGroup, gatesOf } from './branches'
import { example, hull, section } from './exampleForms'

const kind = { code: 'uncovered-option', severity: 'advice' } as const
/** So many siblings lead to a branch of their own before it is odd that one does not. */
const FEWEST = 3
const options = ['wood', 'steel', 'grp', 'alu'].map(code => ({ code, label: code }))
const hulls = (...codes: string[]) =>
  example(section('boat', [hull({ options }), ...codes.map(c => branchGroup(c, `hull = "${c}"`))]))

export const uncoveredOption: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about: 'All options of a question lead to a branch of their own but one: was its branch forgotten?',
  raises: hulls('wood', 'steel', 'grp'),
  spares: hulls('wood', 'steel', 'grp', 'alu'),
  run: inquiry =>
    gatesOf(inquiry).flatMap(({ question, classes, branches }): Finding[] => {
      const { place } = question
      if (place.node.type !== 'choice' || place.node.writeIn || isNeverInPlay(inquiry, place.order)) return []
      const rows = optionsOf(inquiry.form, place.node) ?? []
      const single = branches.filter(b => !b.onBlank && b.holds.filter(h => h).length === 1)
      const covered = classes.filter((_, i) => single.some(b => b.holds[i]))
      const bare = rows.filter(r => !classes.some((c, i) => c === r.code && branches.some(b => b.holds[i])))
      const [only] = bare
      if (
        !only ||
        bare.length > 1 ||
        covered.length < FEWEST ||
        covered.length !== rows.length - 1 ||
        branches.some(b => b.onBlank) ||
        // What no route leads away goes on to the section that follows: that is its branch.
        branches.some(b => b.kind === 'route')
      )
        return []
      return [
        finding(
          kind,
          place,
          `Every option of ${quotedName(place)} leads to a branch of its own, but “${only.label}” leads nowhere.`,
          {
            conflict: [partAt(place), ...single.map(b => partAt(b.place, b.kind, b.index))],
            witness: { ...inquiry.wayTo(place.section), [place.code]: only.code },
          },
        ),
      ]
    }),
}

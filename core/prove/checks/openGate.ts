import { NEVER_IN_PLAY, isNeverInPlay } from './neverInPlay'
import type { Item } from '../../form/definition'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { gatesOf, hullBranches } from './branches'

const kind = { code: 'open-gate', severity: 'risk' } as const
/** So many different branches make a choice a gate, though not every option leads to one. */
const MANY = 3

export const openGate: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'A question decides between branches – every answer leads to one, there are several, or one asks what has to be answered – but it may be left blank: then none is taken.',
  raises: hullBranches(undefined, 'wood', 'steel', 'grp'),
  spares: hullBranches(true, 'wood', 'steel', 'grp'),
  run: inquiry =>
    gatesOf(inquiry).flatMap(({ question, classes, branches }): Finding[] => {
      const { place, required, default: begins } = question
      const { type } = place.node
      if (
        required !== null ||
        begins !== null ||
        (type !== 'choice' && type !== 'yesNo') ||
        classes.length < 2 ||
        isNeverInPlay(inquiry, place.order)
      )
        return []
      const own = branches.filter(b => !b.onBlank && b.holds.includes(false))
      const isFull = classes.every((_, i) => own.some(b => b.holds[i]))
      const different = new Set(own.map(b => b.holds.join())).size
      const isGate = isFull || (type === 'choice' && different >= MANY) || own.some(b => isDemanding(b.place))
      if (branches.some(b => b.onBlank) || !isGate) return []
      return [
        finding(
          kind,
          place,
          `${quotedName(place)} decides ${different === 1 ? 'about a branch' : `between ${different} branches`} but may be left blank: then ${different === 1 ? 'it is not' : 'none of them is'} taken.`,
          {
            conflict: [partAt(place), ...own.map(b => partAt(b.place, b.kind, b.index))],
            witness: inquiry.wayTo(place.section),
            mend: {
              words: 'Require it',
              edits: [{ do: 'change', what: place.address, set: { required: true } }],
            },
          },
        ),
      ]
    }),
}

/** Whether a group or section has something in it that has to be answered. */
const isDemanding = ({ node }: Place): boolean => 'items' in node && node.items.some(isRequired)
const isRequired = (item: Item): boolean =>
  item.kind === 'group' ? item.items.some(isRequired) : 'required' in item && item.required === true

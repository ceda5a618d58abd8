import { NEVER_IN_PLAY, isNeverInPlay } from './neverInPlay'
import type { Item } from '../../form/definition'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import type { Inquiry } from '../goals/inquiry'
import { gatesOf, hullBranches, type Gate } from './branches'

const kind = { code: 'open-gate', severity: 'risk' } as const
/** So many different branches make a choice a gate, though not every option leads to one. */
const MANY = 3
/** So many other questions that decide are required before the one that is not is odd. */
const FEWEST_OTHERS = 2

export const openGate: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'A question decides between branches – every answer leads to one, there are several, one asks what has to be answered, or all other questions that decide are required – but it may be left blank: then none is taken.',
  raises: hullBranches(undefined, 'wood', 'steel', 'grp'),
  spares: hullBranches(true, 'wood', 'steel', 'grp'),
  run: inquiry => {
    const gates = gatesOf(inquiry)
    const open = gates.filter(isOpen)
    // Where every other question that decides something has to be answered, the one that need not stands out.
    const isOdd = open.length === 1 && gates.length > FEWEST_OTHERS
    return open
      .filter(gate => gate.classes.length >= 2 && !isNeverInPlay(inquiry, gate.question.place.order))
      .flatMap(gate => ofGate(inquiry, gate, isOdd))
  },
}

/** A question that may be left blank. */
const isOpen = ({ question: { place, required, default: begins } }: Gate): boolean =>
  required === null && begins === null && (place.node.type === 'choice' || place.node.type === 'yesNo')

function ofGate(inquiry: Inquiry, { question, classes, branches }: Gate, isOdd: boolean): Finding[] {
  const { place } = question
  const own = branches.filter(b => !b.onBlank && b.holds.includes(false))
  const isFull = classes.every((_, i) => own.some(b => b.holds[i]))
  const different = new Set(own.map(b => b.holds.join())).size
  const isManifold = place.node.type === 'choice' && different >= MANY
  const isClear = isFull || isManifold || own.some(b => isDemanding(b.place))
  // Something shown for the blank means it; where many others hang on the question, one more does not.
  const isMeant = branches.some(b => b.onBlank) && different < MANY
  if (own.length === 0 || isMeant || !(isClear || isOdd)) return []
  const [what, then] =
    different === 1 ? ['about a branch', 'it is not'] : [`between ${different} branches`, 'none of them is']
  return [
    finding(
      isClear ? kind : { ...kind, severity: 'advice' },
      place,
      `${quotedName(place)} decides ${what} but may be left blank: then ${then} taken.`,
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
}

/** Whether a group or section has something in it that has to be answered. */
const isDemanding = ({ node }: Place): boolean => 'items' in node && node.items.some(isRequired)
const isRequired = (item: Item): boolean =>
  item.kind === 'group' ? item.items.some(isRequired) : 'required' in item && item.required === true

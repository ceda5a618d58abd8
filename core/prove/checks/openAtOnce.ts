import { leaderOf, openedWith } from '../../form/alongside'
import type { Form } from '../../form/definition'
import type { Turn } from '../../form/turns'
import type { Place } from '../../form/walk'
import { accessViewOf, mayFill, maySee } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import { decidersOf } from './decidedBy'
import { example, section, text, yesNo } from './exampleForms'
import { misplacedTurns } from './misplacedTurns'

const kind = { code: 'open-at-once', severity: 'fault' } as const
const turned = (shownWhen: string | undefined): Form => ({
  ...example(
    section('boat', [text('name')]),
    section('rig', [yesNo('mast_sound')]),
    section('engine', [text('remarks', { shownWhen })]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'rigger', name: 'Rigger' },
    { code: 'fitter', name: 'Engine fitter' },
  ],
  turns: [
    { code: 'owner', party: 'owner', by: 'link', access: { boat: 'fills' } },
    { code: 'rigger', party: 'rigger', by: 'link', access: { boat: 'reads', rig: 'fills' } },
    {
      ...{ code: 'fitter', party: 'fitter', by: 'link', alongside: 'rigger' },
      access: { boat: 'reads', engine: 'fills' },
    },
  ],
})

export const openAtOnce: Check = {
  ...kind,
  about:
    'Turns are to be open at once though one fills, reads or is decided by what the other fills; or they don’t stand one after the other.',
  raises: turned('mast_sound = true'),
  spares: turned(undefined),
  run: inquiry => [
    ...misplacedTurns(inquiry.form, kind),
    ...pairsAtOnce(inquiry.form).flatMap(([turn, other]) => needed(inquiry, turn, other)),
  ],
}

/** Each turn with each other one that is open at once with it. */
const pairsAtOnce = (form: Form): [Turn, Turn][] =>
  (form.turns ?? []).flatMap(turn =>
    openedWith(form, turn).flatMap((other): [Turn, Turn][] => (other === turn ? [] : [[turn, other]])),
  )

/** What one turn needs of what another fills: the first such thing of each kind. */
function needed(inquiry: Inquiry, turn: Turn, other: Turn): Finding[] {
  const { form, model } = inquiry
  const { places } = model.plan
  const own = accessViewOf(form, places, turn)
  const others = accessViewOf(form, places, other)
  const isTheirs = (place: Place) => isAsked(place) && mayFill(others, place)
  const seen = places.filter(place => maySee(own, place))
  const [name, otherName] = [turnName(form, turn), turnName(form, other)]
  const say = (place: Place, sentence: string, more: readonly Place[] = []) =>
    finding(kind, place, `${sentence} They can’t be open at once.`, {
      turn: turn.code,
      conflict: [place, ...more].map(p => partAt(p)),
    })
  const found: Finding[] = []
  const filled = seen.find(place => isTheirs(place) && mayFill(own, place))
  // The same of both; it is said once.
  if (filled && leaderOf(form, other) === turn)
    found.push(say(filled, `“${name}” and “${otherName}” both fill ${quotedName(filled)}.`))
  const read = seen.find(place => isTheirs(place) && !mayFill(own, place))
  if (read) found.push(say(read, `“${name}” reads ${quotedName(read)}, which “${otherName}” fills.`))
  for (const [code, decided] of decidersOf(model, seen)) {
    const asked = (model.plan.byCode.get(code) ?? model.plan.groups.get(code))?.place
    if (!asked || !isTheirs(asked) || maySee(own, asked)) continue
    const by = `${quotedName(asked)}, which “${otherName}” fills`
    found.push(say(decided, `What “${name}” finds at ${quotedName(decided)} is decided by ${by}.`, [asked]))
    break
  }
  return [...found, ...namedBy(inquiry, turn, other, isTheirs)]
}

/** Whether answers are given at a place; a value is worked out. */
const isAsked = (place: Place): boolean =>
  place.kind === 'group'
    ? place.node.repeat !== undefined
    : place.kind === 'question' && place.node.type !== 'value'

/** Who acts in a turn may not be named by another one that is open at once with it. */
function namedBy(
  { form, model }: Inquiry,
  turn: Turn,
  other: Turn,
  isTheirs: (place: Place) => boolean,
): Finding[] {
  const { by } = turn
  const asked = typeof by === 'object' && 'answer' in by ? model.plan.byCode.get(by.answer)?.place : undefined
  if (!asked || !isTheirs(asked)) return []
  const sentence = `“${turnName(form, turn)}” goes to whoever ${quotedName(asked)} names, which “${turnName(form, other)}” fills. They can’t be open at once.`
  return [finding(kind, asked, sentence, { turn: turn.code, conflict: [partAt(asked)] })]
}

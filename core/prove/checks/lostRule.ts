import { namesIn } from '../../expressions/tree'
import type { PlannedRule } from '../../fill/planned'
import { optionsOf } from '../../form/rows'
import type { Place } from '../../form/walk'
import { rareStems, stemsAt, stemsOf, stemsOfOption } from '../model/words'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { areSiblings, gatesOf, isTakenFor, type Gate } from './branches'
import { type Check, finding, partAt, quotedName } from './check'
import { choice, example, section, text } from './exampleForms'
import { NEVER_IN_PLAY } from './neverInPlay'

const kind = { code: 'lost-rule', severity: 'advice' } as const
const reach = (mail: string | undefined) =>
  example(
    section('reach', [
      choice('reach_by', 'How may we reach you?', { phone: 'By phone', mail: 'By e-mail' }),
      text('phone_no', { label: 'Phone number', shownWhen: 'reach_by = "phone"' }),
      text('mail_to', { label: 'E-mail', shownWhen: mail }),
    ]),
  )

export const lostRule: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'Among things that each show for their choice, one with the words of a choice does not ask for it; or what follows a yes or no and speaks of the same does not, and nothing else does: a rule got lost?',
  raises: reach(undefined),
  spares: reach('reach_by = "mail"'),
  run: inquiry => {
    const isRare = rareStems(inquiry.model.plan.places)
    return [
      ...gatesOf(inquiry).flatMap(gate => ofGate(inquiry, gate, isRare)),
      ...yesNosOf(inquiry).flatMap(gate => [
        ...afterYesNo(inquiry, gate, isRare),
        ...askingOther(inquiry, gate, isRare),
      ]),
    ]
  },
}

/** A choice that decides about things after it in its own section or group: those with the words of a choice that none is shown for. */
function ofGate(inquiry: Inquiry, gate: Gate, isRare: (stem: string) => boolean): Finding[] {
  const { place } = gate.question
  if (place.node.type !== 'choice') return []
  const own = gate.branches.filter(b => b.kind === 'shownWhen' && areSiblings(b.place, place) && !b.onBlank)
  if (own.length === 0) return []
  const options = optionsOf(inquiry.form, place.node) ?? []
  const last = Math.max(...own.map(b => b.place.order))
  const near = inquiry.model.plan.places.filter(
    p => areSiblings(p, place) && p.order > place.order && p.order <= last + 1 && p.kind !== 'note',
  )
  const uncovered = options.filter(o => !own.some(b => isTakenFor(gate, b, o.code)))
  const others = (label: string) => options.filter(o => o.label !== label).flatMap(o => [...stemsOf(o.label)])
  return near
    .filter(p => !asksFor(inquiry, p, place.code))
    .flatMap((bare): Finding[] => {
      const words = [...stemsAt(bare)].filter(isRare)
      const option = uncovered.find(o => {
        const stems = [...stemsOfOption(o)]
        return stems.some(s => words.includes(s) && !others(o.label).includes(s))
      })
      if (!option) return []
      const rule = `${place.code} = ${JSON.stringify(option.code)}`
      return [
        finding(
          kind,
          bare,
          `${quotedName(bare)} does not ask for ${quotedName(place)}, as what stands beside it does; its words are those of “${option.label}”.`,
          {
            conflict: [partAt(bare), ...own.map(b => partAt(b.place, 'shownWhen'))],
            mend: {
              words: `Show it when ${rule}`,
              edits: [{ do: 'change', what: bare.address, set: { shownWhen: rule } }],
            },
          },
        ),
      ]
    })
}

/** Whether the rule by which something shows names a question. */
const asksFor = ({ model: { rules } }: Inquiry, place: Place, code: string): boolean =>
  rules.some(
    r => r.place === place && r.kind === 'shownWhen' && r.expr !== null && namesIn(r.expr).includes(code),
  )

const codeStems = ({ code }: Place) => stemsOf(code.replaceAll('_', ' '))

/** What speaks of the same as a yes or no before it, and does not ask for it, though nothing else is shown for the yes. */
function afterYesNo(inquiry: Inquiry, gate: YesNo, isRare: (stem: string) => boolean): Finding[] {
  const { place } = gate
  if (gate.hasYes) return []
  const { places } = inquiry.model.plan
  let next = place.order + 1
  while (places[next]?.kind === 'note') next += 1
  const after = places[next]
  if (!after || asksFor(inquiry, after, place.code)) return []
  // A title has many words; what a section goes by in rules has few.
  const isSection = after.kind === 'section'
  const [own, its] = isSection ? [codeStems(place), codeStems(after)] : [stemsAt(place), stemsAt(after)]
  const isNext = isSection || areSiblings(after, place)
  return isNext && [...its].some(s => isRare(s) && own.has(s)) ? [toldAfter(after, place)] : []
}

/** What goes by the name of a yes or no and shows by something that has nothing to do with either. */
function askingOther(inquiry: Inquiry, { place }: YesNo, isRare: (stem: string) => boolean): Finding[] {
  const { plan } = inquiry.model
  const own = [...codeStems(place)].filter(isRare)
  const near: { place: Place; shown: PlannedRule | null }[] = [
    ...(plan.sections[place.section]?.all ?? []).filter(step => areSiblings(step.place, place)),
    ...plan.sections.slice(place.section + 1, place.section + 2),
  ]
  return near.flatMap(({ place: shown, shown: rule }): Finding[] => {
    if (!rule?.expr || shown.order <= place.order) return []
    const [names, words] = [namesIn(rule.expr), codeStems(shown)]
    if (names.includes(place.code) || !own.some(s => words.has(s))) return []
    const asked = names.flatMap(name => plan.byCode.get(name)?.place ?? [])
    const isElsewhere = asked.every(a => [...stemsAt(a)].every(s => !stemsAt(shown).has(s)))
    return isElsewhere ? [toldAfter(shown, place)] : []
  })
}

function toldAfter(after: Place, place: Place): Finding {
  const rule = `${place.code} = true`
  return finding(
    kind,
    after,
    `${quotedName(after)} comes after ${quotedName(place)} and speaks of the same, but does not ask for that answer.`,
    {
      conflict: [partAt(after), partAt(place)],
      mend: {
        words: `Show it when ${rule}`,
        edits: [{ do: 'change', what: after.address, set: { shownWhen: rule } }],
      },
    },
  )
}

/** A yes or no, and whether a rule that asks for it alone is true for the yes. */
interface YesNo {
  place: Place
  hasYes: boolean
}

function yesNosOf(inquiry: Inquiry): YesNo[] {
  const { rules, plan } = inquiry.model
  const gates = new Map(gatesOf(inquiry).map(g => [g.question.place, g] as const))
  const named = new Set(rules.flatMap(r => (r.expr ? namesIn(r.expr) : [])))
  return plan.questions.flatMap(({ place }): YesNo[] => {
    if (place.node.type !== 'yesNo') return []
    const gate = gates.get(place)
    const yes = gate?.classes.indexOf(true) ?? -1
    const hasYes = gate ? gate.branches.some(b => b.holds[yes]) : named.has(place.code)
    return [{ place, hasYes }]
  })
}

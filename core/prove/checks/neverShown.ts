import type { PlannedPlace, PlannedSection, Step } from '../../fill/planned'
import { called, finding, partAt, sectionGoal, type Check, type Goal, type Inquiry } from '../goals/inquiry'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import { example, section, text, whole } from './exampleForms'
import { undecidedFinding } from './undecided'

const kind = { code: 'never-shown', severity: 'fault' } as const
const outer = { code: 'contradicts-outer', severity: 'fault' } as const

export const neverShown: Check = {
  ...kind,
  about: 'No answers at all bring this section, group, question or note into play.',
  raises: example(section('crew', [whole('age'), text('guardian', { shownWhen: 'age < 18 and age > 65' })])),
  spares: example(section('crew', [whole('age'), text('guardian', { shownWhen: 'age < 18 or age > 65' })])),
  run: function* (inquiry) {
    for (const found of look(inquiry)) if (found?.code !== outer.code) yield found
  },
}

const within = (rule: string) =>
  example(
    section('crew', [
      whole('age'),
      {
        kind: 'group',
        code: 'young',
        title: 'For the young',
        shownWhen: 'age < 18',
        items: [text('school'), text('licence', { shownWhen: rule })],
      },
    ]),
  )

export const contradictsOuter: Check = {
  ...outer,
  about: 'A rule can’t be true where the rules of what stands around it are: the thing can never show there.',
  raises: within('age >= 21'),
  spares: within('age >= 16'),
  run: inquiry =>
    (FOUND.get(inquiry) ?? [...look(inquiry)].filter(f => f !== null)).filter(f => f.code === outer.code),
}

/** What can't be shown, once looked for by the first of the two checks. */
const FOUND = new WeakMap<Inquiry, Finding[]>()
function* look(inquiry: Inquiry): Generator<Finding | null> {
  const found: Finding[] = []
  FOUND.set(inquiry, found)
  for (const section of inquiry.model.plan.sections) {
    for (const thing of [section, ...section.all]) {
      const here = 'routes' in thing ? sectionFindings(inquiry, thing) : stepFindings(inquiry, thing)
      found.push(...here)
      yield* here
      yield null
    }
  }
}

function sectionFindings(inquiry: Inquiry, { place, shown }: PlannedSection): Finding[] {
  if (!shown?.expr || inquiry.impossible.has(place.order) || isCircular(inquiry, place.code)) return []
  const goal = sectionGoal(inquiry.model, place.section)
  return decided(inquiry, goal, { place }, place.section - 1)
}

function stepFindings(inquiry: Inquiry, step: Step): Finding[] {
  const { place, shown } = step
  if (!shown?.expr || inquiry.isFolded(step) || isCircular(inquiry, place.code)) return []
  const goal: Goal = {
    key: `shown:${place.address}`,
    at: place,
    section: place.section,
    names: namesAround(inquiry.model, step),
    literals: space => [space.inPlay(step)],
    holds: state => state.inPlay[place.order] === true,
  }
  return decided(inquiry, goal, step, place.section)
}

/** Decides whether something can show; the nearest miss leads to the section `near`. */
function decided(
  inquiry: Inquiry,
  goal: Goal,
  { place }: Pick<PlannedPlace, 'place'>,
  near: number,
): Finding[] {
  const decision = inquiry.decide(goal, { seen: e => e.shown.has(place.order) })
  if (decision.is === 'undecided')
    return [undecidedFinding(place, `whether ${called(place)} can ever be shown`, decision.why)]
  if (decision.is !== 'impossible') return []
  const repeated = inquiry.isRepeated(decision.conflict)
  inquiry.impossible.set(place.order, decision.conflict)
  if (repeated) return []
  const others = decision.conflict.filter(p => !(p.address === place.address && p.kind === 'shownWhen'))
  const around = new Set([
    inquiry.model.plan.sections[place.section]?.place.address,
    ...place.groups.map(g => g.address),
  ])
  const [first] = others
  if (first && others.every(p => p.kind === 'shownWhen' && around.has(p.address))) {
    const outside = inquiry.model.plan.places.find(p => p.address === first.address)
    return [
      finding(
        outer,
        place,
        `${called(place)} can never be shown: its rule contradicts the one around it${outside ? `, of ${called(outside)}` : ''}.`,
        {
          rule: `${place.address}:shownWhen`,
          conflict: decision.conflict,
          witness: near < 0 ? null : inquiry.wayTo(near),
        },
      ),
    ]
  }
  const sentence =
    others.length === 0
      ? `${called(place)} can never be shown: no answers make its rule true.`
      : `${called(place)} can never be shown: its rule can’t be true together with ${others.length === 1 ? 'another rule' : `${others.length} other rules`}.`
  return [
    finding(kind, place, sentence, {
      rule: `${place.address}:shownWhen`,
      conflict: decision.conflict.length > 0 ? decision.conflict : [partAt(place, 'shownWhen')],
      witness: near < 0 ? null : inquiry.wayTo(near),
    }),
  ]
}

const isCircular = (inquiry: Inquiry, code: string) => inquiry.model.circular.has(code)

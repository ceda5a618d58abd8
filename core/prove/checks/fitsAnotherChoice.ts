import { namesIn } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { optionsOf } from '../../form/rows'
import { placeName, type Place } from '../../form/walk'
import { asksIfAsUsual, isDenial, rareStems, stemsAt, stemsOfOption } from '../model/words'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { gatesOf, isTakenFor, type Branch, type Gate } from './branches'
import { type Check, finding, partAt, quotedName } from './check'
import { choice, example, section, text } from './exampleForms'
import { NEVER_IN_PLAY } from './neverInPlay'

const kind = { code: 'fits-another-choice', severity: 'advice' } as const
const incident = (damage: string) =>
  example(
    section('what', [
      choice('incident', 'What happened?', { injury: 'Somebody was hurt', damage: 'Something was damaged' }),
      text('hurt_name', { label: 'Who was hurt?', shownWhen: 'incident = "injury"' }),
      text('damaged', { label: 'What was damaged?', shownWhen: `incident = "${damage}"` }),
    ]),
  )

export const fitsAnotherChoice: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'Something is shown, or led to, for one choice though its words are those of another; or it follows a yes or no, speaks of the same, and is shown for the no.',
  raises: incident('injury'),
  spares: incident('damage'),
  run: inquiry => {
    const isRare = rareStems(inquiry.model.plan.places)
    return [...gatesOf(inquiry), ...tickedGates(inquiry)].flatMap(gate =>
      gate.branches.flatMap(branch => ofBranch(inquiry, gate, branch, isRare)),
    )
  },
}

function ofBranch(
  inquiry: Inquiry,
  gate: Gate,
  branch: Branch,
  isRare: (stem: string) => boolean,
): Finding[] {
  const subject = subjectOf(inquiry, branch)
  if (!subject) return []
  const words = [...stemsAt(subject)].filter(isRare)
  return gate.question.place.node.type === 'yesNo'
    ? shownForNo(gate, branch, subject, words)
    : shownForOther(inquiry, gate, branch, subject, words)
}

/** Questions with several choices that alone decide what shows, as if each choice were ticked alone. */
function tickedGates({ model: { plan, form } }: Inquiry): Gate[] {
  const ruled = plan.sections.flatMap(s => s.all).filter(step => step.shown?.expr)
  return plan.questions.flatMap((question): Gate[] => {
    const { node, code } = question.place
    if (node.type !== 'choices') return []
    const classes = (optionsOf(form, node) ?? []).map(o => o.code)
    const values = new Array<Value>(plan.size).fill(null)
    const branches = ruled.flatMap(({ place, shown }): Branch[] => {
      const names = shown?.expr ? namesIn(shown.expr) : []
      if (!shown || names.length !== 1 || names[0] !== code) return []
      const holds = classes.map(choice => {
        values[question.slot] = [choice]
        return shown.run(values) === true
      })
      return [{ place, kind: 'shownWhen', index: 0, holds, onBlank: false }]
    })
    return branches.length > 0 ? [{ question, classes, branches }] : []
  })
}

/** What a branch is about: the thing itself, or the section that a route leads to. */
function subjectOf({ model: { plan } }: Inquiry, { place, kind: ruled, index }: Branch): Place | null {
  if (ruled === 'shownWhen') return place
  const target = plan.sections[place.section]?.routes.find(r => r.index === index)?.target
  return plan.sections[target ?? -1]?.place ?? null
}

const leadTo = (branch: Branch, subject: Place) =>
  branch.kind === 'route'
    ? `A route of ${quotedName(branch.place)} leads to ${quotedName(subject)}`
    : `${quotedName(subject)} is shown`

function shownForOther(
  inquiry: Inquiry,
  gate: Gate,
  branch: Branch,
  subject: Place,
  words: readonly string[],
): Finding[] {
  const { question, branches } = gate
  const { node } = question.place
  if ((node.type !== 'choice' && node.type !== 'choices') || branch.onBlank || !branch.holds.includes(true))
    return []
  const options = optionsOf(inquiry.form, node) ?? []
  const gateWords = stemsAt(question.place)
  const stems = options.map(o => [...stemsOfOption(o)].filter(s => !gateWords.has(s)))
  const own = stems.map((s, i) =>
    s.filter(stem => stems.every((other, j) => i === j || !other.includes(stem))),
  )
  const isFor = (option: number, other: Branch) => isTakenFor(gate, other, options[option]?.code ?? '')
  const matching = options.flatMap((_, i) => (own[i]?.some(s => words.includes(s)) ? [i] : []))
  const [only] = matching
  if (only === undefined || matching.length > 1 || isFor(only, branch)) return []
  // What another branch brings there for this choice is no slip.
  const isBrought = branches.some(b => b !== branch && subjectOf(inquiry, b) === subject && isFor(only, b))
  if (isBrought) return []
  const label = options[only]?.label ?? ''
  return [
    told(
      `${leadTo(branch, subject)} for another answer to ${quotedName(question.place)} than “${label}”, whose words it has: the wrong choice?`,
      { question, branch, subject },
    ),
  ]
}

function shownForNo(
  { question, classes, branches }: Gate,
  branch: Branch,
  subject: Place,
  words: readonly string[],
): Finding[] {
  const [onYes, onNo] = [true, false].map(answer => branch.holds[classes.indexOf(answer)] === true)
  const shared = [...stemsAt(question.place)].filter(s => words.includes(s))
  const hasYes = branches.some(b => b.holds[classes.indexOf(true)] === true)
  const denies =
    isDenial(`${placeName(subject)} ${subject.code.replaceAll('_', ' ')}`) ||
    isDenial(placeName(question.place)) ||
    asksIfAsUsual(question.place)
  // Another yes or no may well be asked instead.
  const isDetail = subject.kind !== 'note' && !(subject.kind === 'question' && subject.node.type === 'yesNo')
  if (!onNo || onYes || hasYes || shared.length === 0 || denies || !isDetail) return []
  return [
    told(
      `${leadTo(branch, subject)} when the answer to ${quotedName(question.place)} is no, and speaks of the same: turned round?`,
      { question, branch, subject },
    ),
  ]
}

const told = (
  sentence: string,
  { question, branch, subject }: { question: Gate['question']; branch: Branch; subject: Place },
) =>
  finding(kind, branch.place, sentence, {
    rule: `${branch.place.address}:${branch.kind === 'route' ? `route:${branch.index}` : 'shownWhen'}`,
    conflict: [
      partAt(branch.place, branch.kind, branch.index),
      partAt(question.place),
      ...(subject === branch.place ? [] : [partAt(subject)]),
    ],
  })

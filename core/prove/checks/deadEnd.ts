import { NEVER_IN_PLAY, isFolded, isNeverInPlay } from './neverInPlay'
import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import type { Answer, Answers } from '../../form/answers'
import { offeredNow, type Filled } from '../../fill/fill'
import type { PlannedQuestion } from '../../fill/planned'
import type { OfferedRow } from '../../form/rows'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { offersOf } from '../encode/offers'
import { stateAt } from '../goals/stateAt'
import { GOOD_ROWS, withLists } from './rows'
import { undecidedFinding } from './undecided'

const kind = { code: 'dead-end', severity: 'fault' } as const
/** How many rows of a parent are tried, and how many parents stand above one another at most. */
const MOST_ROWS = 2_000
const DEEPEST = 8

export const deadEnd: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about: 'A required choice can be narrowed to nothing: whoever answers so can’t go on.',
  raises: withLists(GOOD_ROWS.slice(0, 1), { required: true }),
  spares: withLists(GOOD_ROWS, { required: true }),
  run: inquiry =>
    inquiry.model.plan.questions.flatMap((question): Finding[] => {
      const { place, offer } = question
      if (
        question.required === null ||
        !offer ||
        (offer.narrow === null && offer.rules === null) ||
        place.entryOf !== null ||
        isFolded(inquiry, question) ||
        isNeverInPlay(inquiry, place.order)
      )
        return []
      const isClear = isOfferClear(inquiry, question)
      const found = findStuck(inquiry, question)
      if (typeof found === 'string') return [undecided(question, found)]
      if (found !== null) {
        const sentence = `${quotedName(place)} has to be answered, but these answers leave nothing to choose.`
        const conflict = [partAt(place, offer.narrow ? 'narrowedBy' : 'option'), partAt(place, 'required')]
        return [finding(kind, place, sentence, { conflict, witness: found })]
      }
      return isClear ? leftBlank(inquiry, question) : []
    }),
}

/** Whether what a question offers is told by conditions over answers. */
function isOfferClear({ model }: Inquiry, question: PlannedQuestion): boolean {
  const { classes, opaque } = model.domain(question.place.code)
  return !opaque && classes.every(c => offersOf(question, classes, c) !== null)
}

/** Answers by which a question has to be answered and offers nothing; null where there are none, or why it is not decided. */
export const findStuck = (inquiry: Inquiry, question: PlannedQuestion): Answers | null | string =>
  isOfferClear(inquiry, question) ? decided(inquiry, question, 'answered') : stuck(inquiry, question)

const undecided = ({ place }: PlannedQuestion, why: string): Finding =>
  undecidedFinding(place, `whether there is always something to choose for ${quotedName(place)}`, why)

/** The questions that decide what is on offer. */
const parentsOf = ({ model }: Inquiry, { offer }: PlannedQuestion): PlannedQuestion[] => [
  ...new Set(
    [offer?.narrow, ...(offer?.rules ?? [])]
      .flatMap(r => (r?.expr ? namesIn(r.expr) : []))
      .flatMap(name => model.stepOf(name) ?? []),
  ),
]

/** A parent that may be left blank above a choice that must not be. */
function leftBlank(inquiry: Inquiry, question: PlannedQuestion): Finding[] {
  const { place, offer } = question
  const optional = parentsOf(inquiry, question).filter(p => p.required !== true && p.value === null)
  const [parent] = optional
  if (!parent) return []
  const witness = decided(inquiry, question, 'blank')
  if (witness === null) return []
  if (typeof witness === 'string') return [undecided(question, witness)]
  const sentence = `${quotedName(place)} has to be answered, but while ${quotedName(parent.place)} is left blank there is nothing to choose.`
  return [
    finding(kind, place, sentence, {
      conflict: [
        partAt(parent.place),
        partAt(place, offer?.narrow ? 'narrowedBy' : 'option'),
        partAt(place, 'required'),
      ],
      witness,
      mend: {
        words: `Require ${quotedName(parent.place)}`,
        edits: [{ do: 'change', what: parent.place.address, set: { required: true } }],
      },
    }),
  ]
}

/**
 * Decides whether the question can be in play and required with nothing on offer: a witness, null where it can't, or why it is not decided.
 * @param parents whether what decides on the offer is answered where it is asked, or may be blank where it may stay so
 */
function decided(
  inquiry: Inquiry,
  question: PlannedQuestion,
  parents: 'answered' | 'blank',
): Answers | null | string {
  const { code, order, section } = question.place
  // A parent that is still blank can be answered yet: what counts first is what is left once all that are asked are.
  const answered = parents === 'answered' ? parentsOf(inquiry, question) : []
  const goal: Goal = {
    key: `dead-end:${parents}:${question.place.address}`,
    at: question.place,
    section,
    names: [code],
    literals: space => [
      space.inPlay(question),
      question.required === true
        ? space.encoding.yes
        : space.rule(question.required, question.place, 'required'),
      ...(space.offered(code) ?? [space.encoding.yes]).map(l => -l),
      ...answered.map(p =>
        space.encoding.or([-space.encoding.variable(p.place.code).blank, -space.inPlay(p)]),
      ),
      ...space.answeredHere(code),
    ],
    holds: state =>
      state.inPlay[order] === true &&
      state.required[question.slot] === true &&
      offeredNow(state, question)?.size === 0 &&
      answered.every(p => state.inPlay[p.place.order] !== true || (state.values[p.slot] ?? null) !== null),
  }
  const decision = inquiry.decide(goal)
  if (decision.is === 'possible') return inquiry.witness(goal) ?? NO_EXAMPLE
  return decision.is === 'undecided' ? decision.why : null
}
const NO_EXAMPLE = 'the answers that the solver found don’t show it'

/** Of a list too long for classes: answers that lead to the question, with a parent’s row chosen that leaves nothing; each is tried in the evaluator. */
function stuck(inquiry: Inquiry, question: PlannedQuestion): Answers | null {
  const { model } = inquiry
  const parents = lookups(question)
    .flatMap(l => model.stepOf(l.parent) ?? [])
    .filter(p => p.offer !== null)
  if (parents.length === 0) return null
  const { order, section } = question.place
  const goal: Goal = {
    key: `stuck:${question.place.address}`,
    at: question.place,
    section,
    names: parents.map(p => p.place.code),
    literals: space => [
      space.inPlay(question),
      ...parents.map(p => -space.encoding.variable(p.place.code).blank),
    ],
    holds: state => state.inPlay[order] === true,
  }
  const base = inquiry.witness(goal)
  if (base === null) return null
  const isStuck = (state: Filled | null) =>
    state !== null &&
    state.inPlay[order] === true &&
    state.required[question.slot] === true &&
    offeredNow(state, question)?.size === 0
  for (const parent of parents) {
    for (const row of [...(parent.offer?.index.rows ?? [])].slice(0, MOST_ROWS)) {
      const answers: Record<string, Answer> = { ...base }
      choose(inquiry, parent, row, answers, 0)
      if (isStuck(stateAt(model, answers, goal, inquiry.today))) return answers
    }
  }
  return null
}

/** Chooses a row, and above it the rows that it belongs to. */
function choose(
  inquiry: Inquiry,
  question: PlannedQuestion,
  row: OfferedRow,
  answers: Record<string, Answer>,
  depth: number,
) {
  answers[question.place.code] = question.place.node.type === 'choices' ? [row.code] : row.code
  if (depth >= DEEPEST) return
  for (const { column, parent } of lookups(question)) {
    const above = inquiry.model.stepOf(parent)
    const code = row[column]
    const found = typeof code === 'string' ? above?.offer?.rows.get(code) : undefined
    if (above && found) choose(inquiry, above, found, answers, depth + 1)
  }
}

/** The parts of a narrowing that say “this column is that answer”. */
function lookups({ offer }: PlannedQuestion): { column: string; parent: string }[] {
  const expr = offer?.narrow?.expr
  if (!expr) return []
  const columnIn = (e: Expr | undefined) =>
    e?.kind === 'path' && e.of.kind === 'name' && e.of.name === 'row' ? e.member : null
  const nameIn = (e: Expr | undefined) => (e?.kind === 'name' && e.name !== 'row' ? e.name : null)
  return nodesOf(expr).flatMap(n => {
    const [a, b] = sidesOf(n)
    const column = columnIn(a) ?? columnIn(b)
    const parent = nameIn(a) ?? nameIn(b)
    return column !== null && parent !== null ? [{ column, parent }] : []
  })
}

/** What an expression says to be the same, or to contain the other. */
function sidesOf(expr: Expr): readonly Expr[] {
  if (expr.kind === 'compare' && expr.op === '=') return [expr.left, expr.right]
  return expr.kind === 'call' && expr.name === 'list contains' ? expr.args : []
}

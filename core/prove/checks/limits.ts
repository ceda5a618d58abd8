import type { Form } from '../../form/definition'
import type { Question } from '../../form/questions'
import type { PlannedQuestion } from '../../fill/planned'
import { namesBehind } from '../../parties/handOffNames'
import type { ConflictPart } from '../finding'
import { Inquiry } from '../goals/inquiry'
import { shownGoal } from '../goals/goal'
import { partAt } from './check'

/** So many questions' limits are looked into. */
const MOST_QUESTIONS = 8
const LIMITS = ['min', 'max', 'minLength', 'maxLength', 'pattern', 'least', 'most'] as const
const NOTE = 'tobbin_holds'

/**
 * The limits that a conflict needs as well: some answers would fulfil its conditions if they were not there. A smallest set.
 * @param conflict conditions that can't be true together; where rules of other kinds take part nothing is looked into
 */
export function limitsBehind(inquiry: Inquiry, conflict: readonly ConflictPart[]): ConflictPart[] {
  const { model } = inquiry
  const rules = model.rules.filter(r =>
    conflict.some(p => p.address === r.place.address && p.kind === r.kind && p.index === r.index),
  )
  if (rules.length === 0 || rules.length < conflict.length || rules.some(r => r.kind !== 'shownWhen'))
    return []
  const names = new Set(rules.flatMap(r => (r.expr ? namesBehind(model.plan, r.expr) : [])))
  const questions = [...names].flatMap(name => model.plan.byCode.get(name) ?? [])
  const limited = questions.filter(({ place }) => LIMITS.some(key => key in place.node))
  const isSimple = questions.length === names.size && questions.every(q => q.place.entryOf === null)
  if (!isSimple || limited.length === 0 || limited.length > MOST_QUESTIONS) return []
  const texts = rules.map(r => r.text)
  const holdsWith = (kept: readonly PlannedQuestion[]) => canHold(inquiry, questions, kept, texts)
  if (!holdsWith([])) return []
  let needed = limited
  for (const question of limited) {
    const others = needed.filter(q => q !== question)
    if (!holdsWith(others)) needed = others
  }
  return needed.map(q => partAt(q.place, 'limits'))
}

/** Whether conditions can be true together with nothing but some questions asked, the limits of a few of them kept. */
function canHold(
  { form, today }: Inquiry,
  questions: readonly PlannedQuestion[],
  limited: readonly PlannedQuestion[],
  texts: readonly string[],
): boolean {
  const asked = questions.map(q => bareQuestion(q.place.node, limited.includes(q)))
  const holds = texts.map(text => `(${text})`).join(' and ')
  const bare: Form = {
    tobbin: 2,
    code: 'bare',
    title: 'Bare',
    lists: form.lists,
    sections: [
      { code: 'asked', title: 'Asked', items: asked },
      { code: 'told', title: 'Told', items: [{ kind: 'note', code: NOTE, text: '', shownWhen: holds }] },
    ],
  }
  const inquiry = new Inquiry(bare, today)
  const note = inquiry.model.plan.sections[1]?.all.find(s => s.place.code === NOTE)
  return note !== undefined && inquiry.decide(shownGoal(inquiry.model, note)).is === 'possible'
}

const RULES = [
  'shownWhen',
  'required',
  'validWhen',
  'atLeast',
  'atMost',
  'readOnly',
  'skips',
  'default',
  'narrowedBy',
  'under',
] as const

/** A question without its rules, and without its limits unless they are kept. */
function bareQuestion(question: Question, keepsLimits: boolean): Question {
  const gone: ReadonlySet<string> = new Set(keepsLimits ? RULES : [...RULES, ...LIMITS])
  const kept = Object.fromEntries(Object.entries(question).filter(([key]) => !gone.has(key)))
  // What is left is a question of the same type: everything that goes may be left out.
  return kept as Question
}

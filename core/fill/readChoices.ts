import type { Value } from '../expressions/types'
import { isRecord, type Answer } from '../form/answers'
import { LIMITS } from '../form/limits'
import type { MessageKind } from '../form/messages'
import type { QuestionOf } from '../form/questions'
import { WRITE_IN } from '../form/rows'
import { BLANK, NONE, ok, wrong, type AnswerReading, type GivenAnswer, type Offer } from './answerReading'

const notOffered = wrong('This choice is not on offer.', 'notOffered')

/** A write-in as it is answered: `{ "other": "Copper coat" }`; null for any other answer. */
const writtenIn = (answer: Answer): string | null =>
  isRecord(answer) && Object.keys(answer).length === 1 && typeof answer[WRITE_IN] === 'string'
    ? answer[WRITE_IN]
    : null

/** What was written in, several of them told as one text. */
function readWriteIns(texts: readonly string[], value: Value, answer: Answer): AnswerReading {
  if (texts.some(text => text.trim() === '')) return { ...wrong('Please say what.'), answer, value: null }
  if (texts.some(text => text.length > LIMITS.label)) return wrong(`At most ${LIMITS.label} characters fit.`)
  return { ...ok(value, answer), other: texts.join(', ') }
}

/** Reads the answer of a single choice. */
export function readChoice(
  q: QuestionOf<'choice'>,
  answer: GivenAnswer,
  { offered, rows }: Offer,
): AnswerReading {
  const written = q.writeIn ? writtenIn(answer) : null
  if (written !== null) return readWriteIns([written], WRITE_IN, answer)
  if (typeof answer !== 'string') return wrong('One of the choices is expected here.')
  if (!rows.has(answer)) return notOffered
  return offered === null || offered.has(answer) ? ok(answer, answer) : { ...BLANK, lost: [answer] }
}

/** Reads the answer of a multiple choice: codes in the order of the rows, and what was written in. */
export function readChoices(q: QuestionOf<'choices'>, answer: GivenAnswer, offer: Offer): AnswerReading {
  if (!isList(answer)) return wrong('A list of choices is expected here.')
  const { offered, rows } = offer
  const written = q.writeIn ? answer.flatMap(a => writtenIn(a) ?? []) : []
  const codes = answer.filter(a => writtenIn(a) === null || !q.writeIn)
  if (codes.some(c => typeof c !== 'string' || !rows.has(c))) return notOffered
  const most = q.writeIns ?? 1
  if (written.length > most) return wrong(`At most ${most} of your own can be written in.`, 'tooMany')
  const lost = offered === null ? NONE : codes.map(String).filter(c => !offered.has(c))
  const given = new Set<Answer>(codes)
  const kept = [...rows.keys()].filter(c => given.has(c) && !lost.includes(c))
  if (kept.length === 0 && written.length === 0) return { ...BLANK, lost }
  const problem = countProblem(q, kept, written.length > 0, rows)
  if (problem !== null)
    return { ...wrong(problem.sentence, problem.why), ...(problem.isUnfinished ? { answer } : {}) }
  if (written.length === 0) return { ...ok(kept, kept), lost }
  const own = written.map(text => ({ [WRITE_IN]: text }))
  return { ...readWriteIns(written, [...kept, WRITE_IN], [...kept, ...own]), lost }
}

/** What is wrong with how many are chosen; `isUnfinished`: more or fewer would do, so that the answer is kept. */
function countProblem(
  q: QuestionOf<'choices'>,
  kept: readonly string[],
  hasWriteIn: boolean,
  rows: Offer['rows'],
): { sentence: string; isUnfinished: boolean; why: MessageKind | null } | null {
  const alone = kept.find(c => rows.get(c)?.alone)
  const count = kept.length + (hasWriteIn ? 1 : 0)
  if (alone !== undefined && count > 1) {
    const sentence = `“${rows.get(alone)?.label ?? alone}” can’t be chosen together with others.`
    return { sentence, isUnfinished: false, why: null }
  }
  if (q.least !== undefined && count < q.least)
    return { sentence: `Choose at least ${q.least}.`, isUnfinished: true, why: 'tooFew' }
  if (q.most !== undefined && count > q.most)
    return { sentence: `Choose at most ${q.most}.`, isUnfinished: true, why: 'tooMany' }
  return null
}

const isList = (answer: Answer): answer is readonly Answer[] => Array.isArray(answer)

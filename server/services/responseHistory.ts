import { asc, eq } from 'drizzle-orm'
import type { Standing } from '../../core/form/standing'
import { withoutLinks } from '../../core/formats/letterHtml'
import { describeResponse, type ResponseLine } from '../../core/fill/describeResponse'
import { withChanges } from '../../core/fill/correcting'
import type { Plan } from '../../core/fill/planned'
import type { Answers } from '../../core/form/answers'
import { turnNameOf } from '../../core/parties/turns'
import type { HistoryLine } from '../../shared/api/responses'
import { listMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { responseEvents } from '../store/schema'

type EventRow = typeof responseEvents.$inferSelect

/** A response as its history is told from it. */
interface Told {
  id: string
  plan: Plan
  answers: Answers
  begunOn: string
  standing: Standing
}

/** What happened to a response and what was posted about it, the oldest first; links in letters only for those who may act. */
export async function listHistory(db: Database, told: Told, mayAct: boolean): Promise<HistoryLine[]> {
  const events = await db
    .select()
    .from(responseEvents)
    .where(eq(responseEvents.responseId, told.id))
    .orderBy(asc(responseEvents.at))
  const letters = (await listMail(db, told.id)).map((letter): HistoryLine => ({
    ...NOTHING,
    kind: 'posted',
    at: letter.at.toISOString(),
    to: [letter.to],
    subject: letter.subject,
    text: mayAct ? letter.text : withoutLinks(letter.text),
    attachments: letter.attachments.map(a => a.name),
    letter: letter.state,
    said: letter.said,
  }))
  const changes = changesOf(events, told)
  const happened = events.map((event, i): HistoryLine => {
    const { target, to = [], remark = '' } = event.details
    return {
      ...NOTHING,
      kind: event.kind,
      at: event.at.toISOString(),
      turn: turnNameOf(told.plan.form, event.turn),
      who: event.who,
      target: target ? turnNameOf(told.plan.form, target) : '',
      isDone: target === null,
      to,
      remark,
      ...changes[i],
    }
  })
  return [...happened, ...letters].sort((a, b) => a.at.localeCompare(b.at))
}

const NOTHING = {
  turn: '',
  who: '',
  target: '',
  isDone: false,
  to: [],
  remark: '',
  changes: [],
  filled: 0,
  subject: '',
  text: '',
  attachments: [],
  letter: null,
  said: '',
}

type Changes = Pick<HistoryLine, 'changes' | 'filled'>

/** What each event changed in the answers: from those of now back to the first. */
function changesOf(events: readonly EventRow[], { plan, answers, begunOn, standing }: Told): Changes[] {
  const told = new Map<EventRow, Changes>()
  let after = answers
  let lines: readonly ResponseLine[] | null = null
  for (const event of [...events].reverse()) {
    const { before } = event.details
    if (!before || Object.keys(before).length === 0) continue
    lines ??= describeResponse(plan, after, begunOn, standing)
    after = withChanges(after, before)
    const earlier = describeResponse(plan, after, begunOn, standing)
    told.set(event, compareLines(earlier, lines))
    lines = earlier
  }
  return events.map(event => told.get(event) ?? { changes: [], filled: 0 })
}

/** The answers that were others before, and how many were given first. */
function compareLines(before: readonly ResponseLine[], after: readonly ResponseLine[]): Changes {
  const old = new Map(before.filter(l => l.state === 'answered').map(l => [l.path, l]))
  const now = new Map(after.filter(l => l.state === 'answered').map(l => [l.path, l]))
  const changes = [...old.values()].flatMap(({ path, label, text }) => {
    const later = now.get(path)?.text ?? ''
    return later === text ? [] : [{ label, before: text, after: later }]
  })
  return { changes, filled: [...now.keys()].filter(path => !old.has(path)).length }
}

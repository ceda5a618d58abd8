import { and, eq, isNull, lte } from 'drizzle-orm'
import { listNotices } from '../../core/parties/dueDays'
import type { Database } from '../store/database'
import { turns } from '../store/schema'
import { isoToday } from './calendar'
import { postTurn } from './openTurn'
import { findOpenTurn, type OpenTurnTarget } from './openTurnTarget'
import { keepEvent } from './responseEvents'
import { giveTo, REMINDER } from './turnActs'

/** How many turns are looked at in one go. */
const AT_ONCE = 200

/** Posts what is due about turns that wait: reminders, and that a late turn goes to somebody else. Of several that were missed only the last one. */
export async function postNotices(db: Database, today = isoToday()): Promise<void> {
  for (;;) {
    const due = await db
      .select({ id: turns.id })
      .from(turns)
      .where(and(lte(turns.noticeOn, today), isNull(turns.handedOffAt), isNull(turns.givenBackAt)))
      .limit(AT_ONCE)
    for (const { id } of due) await db.transaction(tx => postNotice(tx, id, today))
    if (due.length < AT_ONCE) return
  }
}

async function postNotice(db: Database, id: string, today: string): Promise<void> {
  const target = await findOpenTurn(db, id)
  if (!target) {
    await db.update(turns).set({ noticeOn: null }).where(eq(turns.id, id))
    return
  }
  const { row, turn } = target
  // Another process may have been faster.
  if (row.noticeOn === null || row.noticeOn > today) return
  const all = listNotices(turn, row.dueOn)
  const passed = all.filter(n => n.on <= today).length
  const now = all.slice(row.notices, passed)
  await db
    .update(turns)
    .set({ notices: passed, noticeOn: all[passed]?.on ?? null })
    .where(eq(turns.id, id))
  if (now.some(n => n.kind === 'escalation')) await escalate(db, target)
  else if (now.length > 0 && row.to.length > 0) await remindOf(db, target)
}

async function remindOf(db: Database, target: OpenTurnTarget): Promise<void> {
  const { row, release, turn, response } = target
  await postTurn(db, release, turn, row, REMINDER)
  const details = { to: row.to }
  await keepEvent(db, { responseId: response.id, kind: 'reminded', turn: turn.code, who: '', details })
}

/** A late turn goes to whoever the form names for that. */
async function escalate(db: Database, target: OpenTurnTarget): Promise<void> {
  const { row, release, turn, response } = target
  if (!turn.escalation) return
  const to = [turn.escalation.to]
  await giveTo(db, target, to)
  await postTurn(
    db,
    release,
    turn,
    { ...row, to },
    { subject: 'late, and now yours', text: 'It was due and not done; now it is yours' },
  )
  await keepEvent(db, {
    responseId: response.id,
    kind: 'escalated',
    turn: turn.code,
    who: '',
    details: { to },
  })
}

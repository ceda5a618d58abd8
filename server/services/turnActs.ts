import { eq } from 'drizzle-orm'
import type { TurnAct } from '../../shared/api/board'
import type { Designer } from '../../shared/api/session'
import type { EventDetails, EventKind } from '../../shared/api/storedEvents'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { postTurn } from './openTurn'
import { giveUp } from './places'
import { keepEvent } from './responseEvents'
import { findEarlierTurns, reopen } from './returnTurn'
import { loadOpenTurn, type OpenTurnTarget } from './openTurnTarget'
import { makeLink, revokeLinks } from './turnLinks'

type Doer = Pick<Designer, 'name' | 'email'>
type ActOf<D extends TurnAct['do']> = Extract<TurnAct, { do: D }>

/** Does something with an open turn in somebody's stead, and writes it down. @returns the link, where one was made */
export async function actOnTurn(db: Database, id: string, act: TurnAct, doer: Doer): Promise<string | null> {
  return db.transaction(async tx => {
    const target = await loadOpenTurn(tx, id)
    const keep = (kind: EventKind, details: EventDetails) =>
      keepEvent(tx, {
        responseId: target.response.id,
        kind,
        turn: target.row.turn,
        who: doer.name,
        details,
      })
    if (act.do === 'reassign') await reassign(tx, target, act, keep)
    else if (act.do === 'take over') await takeOver(tx, target, act, doer, keep)
    else if (act.do === 'take back') await takeBack(tx, target, act, keep)
    else if (act.do === 'withdraw') await withdraw(tx, target, act, keep)
    else if (act.do === 'remind') await remind(tx, target, keep)
    else return linkAct(tx, target, act.do, keep)
    return null
  })
}

type Keep = (kind: EventKind, details: EventDetails) => Promise<void>

/** Gives a turn to others: the links of those who had it open nothing any more. */
async function reassign(
  db: Database,
  target: OpenTurnTarget,
  { to, reason }: ActOf<'reassign'>,
  keep: Keep,
): Promise<void> {
  await giveTo(db, target, to)
  await postTurn(
    db,
    target.release,
    target.turn,
    { ...target.row, to },
    { subject: '', text: 'It was given to you' },
  )
  await keep('reassigned', { to, remark: reason })
}

async function takeOver(
  db: Database,
  target: OpenTurnTarget,
  { reason }: ActOf<'take over'>,
  { email }: Doer,
  keep: Keep,
): Promise<void> {
  await giveTo(db, target, [email])
  await keep('taken over', { to: [email], remark: reason })
}

export async function giveTo(
  db: Database,
  { row }: Pick<OpenTurnTarget, 'row'>,
  to: string[],
): Promise<void> {
  await db.update(turns).set({ to }).where(eq(turns.id, row.id))
  await revokeLinks(db, row.id)
}

async function takeBack(
  db: Database,
  target: OpenTurnTarget,
  { to, reason }: ActOf<'take back'>,
  keep: Keep,
): Promise<void> {
  const earlier = (await findEarlierTurns(db, target)).find(e => e.turn.code === to)
  if (!earlier)
    return refuse(
      409,
      'no-turn-before',
      'There is no such turn before this one that it could be taken back to.',
    )
  await reopen(db, target, earlier, { remark: reason, pointed: [] })
  await keep('taken back', { target: to, remark: reason })
}

async function withdraw(
  db: Database,
  { row, response }: OpenTurnTarget,
  { reason }: ActOf<'withdraw'>,
  keep: Keep,
): Promise<void> {
  await db.update(responses).set({ turn: null, withdrawnAt: new Date() }).where(eq(responses.id, response.id))
  await db.update(turns).set({ noticeOn: null }).where(eq(turns.responseId, row.responseId))
  await giveUp(db, response)
  await keep('withdrawn', { remark: reason })
}

async function remind(db: Database, target: OpenTurnTarget, keep: Keep): Promise<void> {
  const { to } = target.row
  if (to.length === 0)
    refuse(422, 'nobody-to-remind', 'Nobody is named for this turn: there is nobody to remind.')
  await postTurn(db, target.release, target.turn, target.row, REMINDER)
  await keep('reminded', { to })
}

/** What a reminder says. */
export const REMINDER = { subject: 'still your turn', text: 'It is still your turn' }

async function linkAct(
  db: Database,
  { row, turn }: OpenTurnTarget,
  act: 'make link' | 'revoke links',
  keep: Keep,
): Promise<string | null> {
  if (act === 'revoke links') {
    await revokeLinks(db, row.id)
    await keep('links revoked', {})
    return null
  }
  if (turn.signIn) return `/f/${row.id}`
  const link = await makeLink(db, row.id, turn, null)
  await keep('link made', {})
  return link
}

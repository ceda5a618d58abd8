import { and, asc, eq, gt, isNotNull, isNull, notInArray, or } from 'drizzle-orm'
import { leaderOf, openedWith } from '../../core/form/alongside'
import { accessViewOf, mayFill, maySee } from '../../core/parties/access'
import type { Turn } from '../../core/form/turns'
import { withoutQuotes } from '../../core/form/quotes'
import type { PlaceOf } from '../../core/form/walk'
import { turnName, turnOf } from '../../core/parties/turns'
import type { EarlierTurn, Returning } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { isOpen, keepDraft } from './keepTurn'
import { resolveLink, type LinkTarget, type LinkUse } from './links'
import { datesOf, postTurn } from './openTurn'
import { voidSignatures } from './documents/sealing'
import { keepEvent } from './responseEvents'

type TurnRow = typeof turns.$inferSelect
/** How a question is called to a party: what its label quotes may be of somebody else. */
export const nameToTell = ({ code, node }: PlaceOf<'question'>): string =>
  withoutQuotes(node.label).trim() || code
/** How many questions are offered to be pointed at. */
const MOST_QUESTIONS = 300

/** The turns that a response could be given back to from the one of a link: those handed off before it, the last one first. */
export async function findEarlierTurns(
  db: Database,
  { row, release, response }: Pick<LinkTarget, 'row' | 'release' | 'response'>,
): Promise<TakenTurn[]> {
  if (!row || !response) return []
  const handedOff = await db
    .select()
    .from(turns)
    .where(and(eq(turns.responseId, response.id), isNotNull(turns.handedOffAt)))
    .orderBy(asc(turns.openedAt), asc(turns.handedOffAt))
  // Of a turn that was taken several times the last one counts.
  const last = new Map(handedOff.map(r => [r.turn, r] as const))
  const form = release.definition
  const own = turnOf(form, row.turn)
  // Of what those fill that are open at once with it, it sees nothing.
  const beside = own ? openedWith(form, own) : []
  return [...last.values()].reverse().flatMap(earlier => {
    const turn = turnOf(form, earlier.turn)
    return turn && !beside.includes(turn) ? [{ row: earlier, turn }] : []
  })
}

/** The same as a page shows them, each with the questions there that can be pointed at: what the one fills and the other sees. */
export async function listEarlierTurns(db: Database, target: LinkTarget): Promise<EarlierTurn[]> {
  const { release, plan, turn } = target
  const form = release.definition
  const own = accessViewOf(form, plan.places, turn)
  const earlier = await findEarlierTurns(db, target)
  return earlier.map(({ turn: before }) => {
    const theirs = accessViewOf(form, plan.places, before)
    const shared = plan.questions.filter(({ place }) => maySee(own, place) && mayFill(theirs, place))
    return {
      turn: before.code,
      name: turnName(form, before),
      questions: shared
        .slice(0, MOST_QUESTIONS)
        .map(({ place }) => ({ code: place.code, label: nameToTell(place) })),
    }
  })
}

/**
 * Gives the response back to an earlier turn, with a remark: its link is open again. The turns that came after it keep their links and what
 * they had filled, also in part, and are opened again when they are reached.
 */
export async function returnTurn(db: Database, use: LinkUse, returning: Returning): Promise<{ to: string }> {
  return db.transaction(async tx => {
    const target = await resolveLink(tx, use, { lock: true })
    const { row, response, who } = target
    if (!row || !response || !isOpen(target))
      return refuse(409, 'not-open', 'This turn is not open any more, so it can’t be given back.')
    const earlier = await findEarlierTurns(tx, target)
    const to = earlier.find(e => returning.to === undefined || e.turn.code === returning.to)
    if (!to)
      return refuse(
        409,
        'no-turn-before',
        'There is no such turn before this one that it could be given back to.',
      )
    if (returning.draft) await keepDraft(tx, target, returning.draft)
    const { remark } = returning
    const offered = (await listEarlierTurns(tx, target)).find(e => e.turn === to.turn.code)?.questions ?? []
    const pointed = returning.pointed.filter(code => offered.some(q => q.code === code))
    await reopen(tx, target, to, { remark, pointed })
    await keepEvent(tx, {
      responseId: response.id,
      kind: 'returned',
      turn: row.turn,
      who,
      details: { target: to.turn.code, remark },
    })
    return { to: turnName(target.release.definition, to.turn) }
  })
}

/** A turn that was taken. */
export interface TakenTurn {
  row: TurnRow
  turn: Turn
}

/** Opens an earlier turn again; those that came after it are opened again when they are reached. What was open at once with it stays as it is. */
export async function reopen(
  db: Database,
  { release }: Pick<LinkTarget, 'release'>,
  to: TakenTurn,
  { remark, pointed }: { remark: string; pointed: string[] },
): Promise<void> {
  const { responseId } = to.row
  const beside = openedWith(release.definition, to.turn).map(t => t.code)
  const closed = await db
    .update(turns)
    .set({ givenBackAt: new Date(), handedOffAt: null, remark: null, pointed: null, noticeOn: null })
    .where(
      and(
        eq(turns.responseId, responseId),
        or(isNull(turns.handedOffAt), gt(turns.handedOffAt, to.row.handedOffAt ?? to.row.openedAt)),
        notInArray(turns.turn, beside),
      ),
    )
    .returning({ turn: turns.turn })
  await voidSignatures(db, responseId, [to.turn.code, ...closed.map(row => row.turn)])
  const dates = datesOf(to.turn)
  await db
    .update(turns)
    .set({ handedOffAt: null, givenBackAt: null, remark, pointed, ...dates })
    .where(eq(turns.id, to.row.id))
  const { code } = leaderOf(release.definition, to.turn)
  await db.update(responses).set({ turn: code }).where(eq(responses.id, responseId))
  await postTurn(
    db,
    release,
    to.turn,
    { ...to.row, ...dates },
    { subject: 'given back', text: `“${remark}” It is your turn again` },
  )
}

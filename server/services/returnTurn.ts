import { and, desc, eq, isNotNull } from 'drizzle-orm'
import type { Turn } from '../../core/form/turns'
import { turnName, turnOf } from '../../core/parties/turns'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { givenBack, responses, turns } from '../store/schema'
import { resolveLink, type LinkTarget } from './links'

/** How many turns that were handed off are looked at for the one before. */
const MOST_LOOKED_AT = 20

/** The turn that was handed off last before the one of a link; null when there is none. */
export async function findPreviousTurn(
  db: Database,
  { row, release, response }: LinkTarget,
): Promise<{ row: typeof turns.$inferSelect; turn: Turn } | null> {
  if (!row || !response) return null
  const handedOff = await db
    .select()
    .from(turns)
    .where(and(eq(turns.responseId, response.id), isNotNull(turns.handedOffAt)))
    .orderBy(desc(turns.handedOffAt))
    .limit(MOST_LOOKED_AT)
  const before = handedOff.find(r => r.id !== row.id && r.turn !== row.turn)
  const turn = before ? turnOf(release.definition, before.turn) : null
  return before && turn ? { row: before, turn } : null
}

/** Gives the response back to the turn before, with a remark: its link is open again. */
export async function returnTurn(db: Database, token: string, remark: string): Promise<{ to: string }> {
  return db.transaction(async tx => {
    const target = await resolveLink(tx, token, true)
    const { row, response, release } = target
    const previous = await findPreviousTurn(tx, target)
    if (!row || !response || !previous || row.handedOffAt !== null || response.turn !== row.turn)
      return refuse(409, 'no-turn-before', 'There is no turn before this one that it could be given back to.')
    await tx.update(turns).set({ handedOffAt: null, remark }).where(eq(turns.id, previous.row.id))
    await tx.delete(turns).where(eq(turns.id, row.id))
    await tx
      .insert(givenBack)
      .values({ responseId: response.id, from: row.turn, to: previous.turn.code, remark })
    await tx.update(responses).set({ turn: previous.turn.code }).where(eq(responses.id, response.id))
    await sendMail(
      tx,
      previous.row.to.map(address => ({
        responseId: response.id,
        to: address,
        subject: `${release.definition.title}: given back`,
        text: `“${remark}” Open /f/${previous.row.token} to go on.`,
      })),
    )
    return { to: turnName(release.definition, previous.turn) }
  })
}

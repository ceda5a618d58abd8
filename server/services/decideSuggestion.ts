import { and, eq, isNotNull, isNull } from 'drizzle-orm'
import type { z } from 'zod'
import type { Decision, Outcome } from '../../shared/api/suggestions'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { suggestions } from '../store/schema'
import { saveOnTop } from './drafts'
import { placeOrRefuse } from './suggestions'

type Row = typeof suggestions.$inferSelect
interface Decider {
  id: string
  /** Whether this person may write the form; else only their own suggestions are theirs to take back. */
  isDesigner: boolean
}

/**
 * Decides about a suggestion. Taking one saves its edits in the name of whoever takes it, and both happen or neither. Refused where it
 * was decided before, or where it is not this person's to decide.
 */
export async function decideSuggestion(
  db: Database,
  formId: string,
  id: string,
  by: Decider,
  { outcome, reply }: z.infer<typeof Decision>,
): Promise<void> {
  const row = await loadSuggestion(db, formId, id)
  refuseForeign(row, by, outcome)
  const mark = (tx: Database) => markDecided(tx, row, by.id, outcome, reply)
  const { proposal } = row
  if (outcome !== 'taken' || proposal === null) return mark(db)
  await saveOnTop(db, formId, by.id, draft => placeOrRefuse(draft, proposal), mark)
}

async function loadSuggestion(db: Database, formId: string, id: string): Promise<Row> {
  const [row] = await db
    .select()
    .from(suggestions)
    .where(and(eq(suggestions.id, id), eq(suggestions.formId, formId)))
  return row ?? refuse(404, 'not-found', 'There is no such suggestion.')
}

/** Refused unless the suggestion is this person's to decide so. */
function refuseForeign(row: Row, by: Decider, outcome: Outcome | null) {
  const isOwn = row.userId === by.id
  const isRemark = row.proposal === null
  if (outcome === 'withdrawn' && !isOwn)
    refuse(403, 'not-allowed', 'Only whoever made a suggestion can withdraw it.')
  const isTheirs = by.isDesigner || (isOwn && (outcome === 'withdrawn' || isRemark))
  if (!isTheirs) refuse(403, 'not-allowed', 'Only those who design this form decide about proposals.')
  const fits = isRemark ? outcome !== 'taken' && outcome !== 'declined' : outcome !== 'settled'
  if (!fits) refuse(422, 'wrong-outcome', 'A proposal is taken or declined, a remark is settled.')
}

/** Writes down what was decided; refused when somebody decided in the meantime. */
async function markDecided(
  db: Database,
  { id }: Row,
  decidedBy: string,
  outcome: Outcome | null,
  reply: string,
) {
  const isOpen = outcome === null ? isNotNull(suggestions.outcome) : isNull(suggestions.outcome)
  const decision =
    outcome === null
      ? { outcome, reply: '', decidedBy: null, decidedAt: null }
      : { outcome, reply, decidedBy, decidedAt: new Date() }
  const kept = await db
    .update(suggestions)
    .set(decision)
    .where(and(eq(suggestions.id, id), isOpen))
    .returning({ id: suggestions.id })
  if (kept.length > 0) return
  const [now] = await db.select().from(suggestions).where(eq(suggestions.id, id))
  const state = now?.outcome ? `It is ${now.outcome} already.` : 'It is open already.'
  refuse(409, 'decided', `Somebody else was faster. ${state}`)
}

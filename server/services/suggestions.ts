import { aliasedTable, and, asc, count, desc, eq, isNotNull, isNull } from 'drizzle-orm'
import type { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import type { Proposal } from '../../core/form/proposals'
import type { Form } from '../../core/form/definition'
import type { Edit } from '../../core/form/edits'
import type { NewSuggestions, Suggestion, Suggestions } from '../../shared/api/suggestions'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { forms, suggestions, users } from '../store/schema'
import { runTask } from '../threads/run'
import { loadFormRow } from './drafts'

/** Decided suggestions that are told. */
const MOST_DECIDED = 50

/** Remarks on a draft, or proposes changes of it; all or none is kept. Refused when one of them can't be made of the draft as it is. */
export async function suggest(
  db: Database,
  formId: string,
  userId: string,
  { about, note, proposals }: z.infer<typeof NewSuggestions>,
): Promise<void> {
  const { draft } = await loadFormRow(db, formId)
  for (const proposal of proposals) await placeOrRefuse(draft, proposal)
  const rows = proposals.length > 0 ? proposals : [null]
  const now = Date.now()
  await db.transaction(async tx => {
    await tx.select({ id: forms.id }).from(forms).where(eq(forms.id, formId)).for('update')
    const [open] = await tx
      .select({ number: count() })
      .from(suggestions)
      .where(and(eq(suggestions.formId, formId), isNull(suggestions.outcome)))
    if ((open?.number ?? 0) + rows.length > LIMITS.suggestions)
      refuse(
        409,
        'too-many-suggestions',
        `A form has at most ${LIMITS.suggestions} open suggestions; some have to be decided first.`,
      )
    // A millisecond apart: so they are told in their order.
    const atOf = (i: number) => new Date(now + i)
    await tx
      .insert(suggestions)
      .values(rows.map((proposal, i) => ({ formId, userId, about, note, proposal, at: atOf(i) })))
  })
}

/** The edits of a proposal as they are made of a draft; refused when they can't be. */
export async function placeOrRefuse(form: Form, proposal: Proposal): Promise<Edit[]> {
  const placed = await runTask('placeProposal', { form, proposal })
  if ('impossible' in placed)
    return refuse(422, 'edit-impossible', `This can’t be made of the form as it is now: ${placed.impossible}`)
  return placed.edits
}

const decider = aliasedTable(users, 'decider')

/** The suggestions of a draft as somebody sees them: all that are open, and the last that were decided. */
export async function listSuggestions(db: Database, formId: string, userId: string): Promise<Suggestions> {
  const of = (isOpen: boolean) =>
    db
      .select({ row: suggestions, by: users.name, decidedBy: decider.name })
      .from(suggestions)
      .leftJoin(users, eq(suggestions.userId, users.id))
      .leftJoin(decider, eq(suggestions.decidedBy, decider.id))
      .where(
        and(
          eq(suggestions.formId, formId),
          isOpen ? isNull(suggestions.outcome) : isNotNull(suggestions.outcome),
        ),
      )
  const open = await of(true).orderBy(asc(suggestions.at), asc(suggestions.id)).limit(LIMITS.suggestions)
  const decided = await of(false).orderBy(desc(suggestions.decidedAt)).limit(MOST_DECIDED)
  const told = ({ row, by, decidedBy }: (typeof open)[number]): Suggestion => ({
    id: row.id,
    by: by ?? 'somebody',
    own: row.userId === userId,
    at: row.at.toISOString(),
    about: row.about,
    note: row.note,
    proposal: row.proposal,
    outcome: row.outcome,
    reply: row.reply,
    decidedBy,
    decidedAt: row.decidedAt?.toISOString() ?? null,
  })
  return { open: open.map(told), decided: decided.map(told) }
}

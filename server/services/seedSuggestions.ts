import { eq, sql } from 'drizzle-orm'
import type { Edit } from '../../core/form/edits'
import { separateProposals } from '../../core/form/proposals'
import type { Database } from '../store/database'
import { forms, users } from '../store/schema'
import { suggest } from './suggestions'

const BY = 'office@wherry.example'
const OF = 'slipway_incident'
const REMARK = {
  about: 'item/where_at',
  note: 'Since spring people also get hurt at the new pontoon. Should it be a place of its own?',
}
/** Each with why: one that helps, and one that can never come true. */
const PROPOSALS: readonly { note: string; edits: Edit[] }[] = [
  {
    note: 'We often have to ask back, and nobody leaves a number.',
    edits: [
      {
        do: 'insert',
        into: 'section/end_sec',
        at: 2,
        node: {
          kind: 'question',
          type: 'phone',
          code: 'reporter_phone',
          label: 'A number where we can reach you',
        },
      },
    ],
  },
  {
    note: 'Pictures only help with near misses.',
    edits: [{ do: 'change', what: 'item/photos', set: { shownWhen: 'cost > 500 and kind = "near_miss"' } }],
  },
]

/** What somebody of the demo suggests. */
export async function seedSuggestions(db: Database): Promise<void> {
  const [user] = await db.select({ id: users.id }).from(users).where(eq(users.email, BY))
  const [form] = await db
    .select({ id: forms.id, draft: forms.draft })
    .from(forms)
    .where(sql`${forms.draft} ->> 'code' = ${OF}`)
  if (!user || !form) throw new Error('The demo’s form or person for suggestions is missing.')
  await suggest(db, form.id, user.id, { ...REMARK, proposals: [] })
  for (const { note, edits } of PROPOSALS) {
    const proposals = separateProposals(form.draft, [edits])
    await suggest(db, form.id, user.id, { about: null, note, proposals })
  }
}

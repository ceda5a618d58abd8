import { asc, eq, sql } from 'drizzle-orm'
import type { Form } from '../../core/form/definition'
import type { ChoiceList } from '../../core/form/choiceLists'
import type { Edit } from '../../core/form/edits'
import type { SharedListBrief } from '../../shared/api/lists'
import type { Designer } from '../../shared/api/session'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { forms, releases, sharedLists } from '../store/schema'
import { saveEdits } from './drafts'
import { listPowers } from './people/rights'

const usesList = (form: Form, code: string) => form.lists?.find(l => l.shared === code)

/** The lists of the workspace with whom each touches, as far as somebody may see these forms. */
export async function listSharedLists(db: Database, userId: string): Promise<SharedListBrief[]> {
  const lists = await db
    .select({
      code: sharedLists.code,
      title: sharedLists.title,
      rows: sharedLists.rowCount,
      revision: sharedLists.revision,
      savedAt: sharedLists.savedAt,
    })
    .from(sharedLists)
    .orderBy(asc(sharedLists.title))
  // Only what names the lists is read of the forms: their rows stay in the store.
  const names = (column: typeof forms.draft | typeof releases.definition) =>
    sql<string[]>`coalesce(jsonb_path_query_array(${column}, '$.lists[*].shared'), '[]'::jsonb)`
  const powers = await listPowers(db, userId)
  const all = await db.select({ id: forms.id, title: forms.title, names: names(forms.draft) }).from(forms)
  const drafts = all.filter(form => powers.get(form.id)?.has('read'))
  const frozen = await db
    .select({ formId: releases.formId, number: releases.number, names: names(releases.definition) })
    .from(releases)
    .orderBy(asc(releases.number))
  return lists.map(l => ({
    ...l,
    savedAt: l.savedAt.toISOString(),
    usedBy: drafts.flatMap((form): SharedListBrief['usedBy'] => {
      const kept = frozen.filter(r => r.formId === form.id && r.names.includes(l.code)).map(r => r.number)
      return form.names.includes(l.code) || kept.length > 0
        ? [{ id: form.id, title: form.title, releases: kept }]
        : []
    }),
  }))
}

/** A list of the workspace with its rows. */
export async function loadSharedList(
  db: Database,
  code: string,
): Promise<{ list: ChoiceList; revision: number }> {
  const [row] = await db.select().from(sharedLists).where(eq(sharedLists.code, code))
  return row
    ? { list: row.list, revision: row.revision }
    : refuse(404, 'not-found', 'The workspace has no such list.')
}

/**
 * Keeps a list for all forms, and brings every other draft that follows it to the same rows, as an edit that can be undone there.
 * @returns the new revision, and the titles of the forms that were changed, as far as this person may see them
 */
export async function saveSharedList(
  db: Database,
  designer: Designer,
  code: string,
  { base, from, list: given }: { base: number; from: string; list: ChoiceList },
): Promise<{ revision: number; changed: string[] }> {
  const list: ChoiceList = { ...given, code, shared: code }
  return db.transaction(async tx => {
    const [row] = await tx
      .select({ revision: sharedLists.revision })
      .from(sharedLists)
      .where(eq(sharedLists.code, code))
      .for('update')
    if ((row?.revision ?? 0) !== base) refuseOutdated(code, row !== undefined && base === 0)
    const kept = {
      title: list.title ?? code,
      list,
      rowCount: list.rows.length,
      revision: base + 1,
      savedBy: designer.id,
      savedAt: new Date(),
    }
    if (row) await tx.update(sharedLists).set(kept).where(eq(sharedLists.code, code))
    else {
      const made = await tx
        .insert(sharedLists)
        .values({ code, ...kept })
        .onConflictDoNothing()
        .returning()
      // Somebody else made it a moment ago.
      if (made.length === 0) refuseOutdated(code, true)
    }
    return { revision: base + 1, changed: await bringToFollowers(tx, designer, list, from) }
  })
}

function refuseOutdated(code: string, isTaken: boolean): never {
  const sentence = isTaken
    ? `The workspace has a list “${code}” already; give this one another code, or bring that one in.`
    : 'Somebody else changed this list for all forms meanwhile. Look at theirs first.'
  return refuse(409, 'outdated', sentence)
}

/** Brings the drafts that follow a list, but one, to its rows; gives their titles. */
async function bringToFollowers(
  db: Database,
  designer: Designer,
  list: ChoiceList,
  except: string,
): Promise<string[]> {
  const following = await db
    .select({ id: forms.id, title: forms.title, draft: forms.draft, revision: forms.revision })
    .from(forms)
    .where(
      sql`jsonb_path_query_array(${forms.draft}, '$.lists[*].shared') @> ${JSON.stringify([list.code])}::jsonb`,
    )
    .for('update')
  const powers = await listPowers(db, designer.id)
  const changed: string[] = []
  for (const form of following) {
    const copy = usesList(form.draft, list.code)
    if (form.id === except || !copy) continue
    await saveEdits(db, form.id, designer.id, form.revision, followEdits(copy, list))
    changed.push(powers.get(form.id)?.has('read') ? form.title : 'a form that is not shared with you')
  }
  return changed
}

/** The edits that bring a draft's copy to the list as the workspace has it. */
export const followEdits = (copy: ChoiceList, list: ChoiceList): Edit[] => [
  {
    do: 'change',
    what: `list/${copy.code}`,
    set: { title: list.title ?? null, columns: list.columns ?? null },
  },
  { do: 'splice', what: `list/${copy.code}`, at: 0, remove: copy.rows.length, rows: list.rows },
]

import { and, asc, eq, sql } from 'drizzle-orm'
import type { Database } from '../store/database'
import { changes } from '../store/schema'

/** A question, group or note that got another code with a save. */
interface Rename {
  revision: number
  from: string
  to: string
}

/** Saves in which something got another code. */
const RECODES = '$[*] ? (@.do == "change" && @.set.code.type() == "string")'
const ITEM = /^item\/([^#]+)$/

/** What got another code in a form’s history, in order. */
export async function loadRenames(db: Database, formId: string): Promise<Rename[]> {
  const rows = await db
    .select({ revision: changes.revision, edits: changes.edits })
    .from(changes)
    .where(and(eq(changes.formId, formId), sql`jsonb_path_exists(${changes.edits}, ${RECODES}::jsonpath)`))
    .orderBy(asc(changes.revision))
  return rows.flatMap(({ revision, edits }) =>
    edits.flatMap((edit): Rename[] => {
      const [, from] = edit.do === 'change' ? (ITEM.exec(edit.what) ?? []) : []
      const to = edit.do === 'change' ? edit.set.code : undefined
      return from !== undefined && typeof to === 'string' ? [{ revision, from, to }] : []
    }),
  )
}

/** What a code of one revision is at a later one. */
export const codeAt = (code: string, since: number, until: number, renames: readonly Rename[]): string =>
  renames
    .filter(r => r.revision > since && r.revision <= until)
    .reduce((now, { from, to }) => (now === from ? to : now), code)

import { and, count, desc, eq, ilike, lt, or, sql } from 'drizzle-orm'
import type { RecordLine, RecordQuery } from '../../../shared/api/people'
import type { z } from 'zod'
import type { Database } from '../../store/database'
import { asPattern } from '../turnSearch'
import { forms, record } from '../../store/schema'

/** What the record tells of. */
export const ACTS = [
  'set up',
  'signed in',
  'sign-in refused',
  'signed out',
  'session ended',
  'password changed',
  'password reset asked for',
  'password reset',
  'second factor set',
  'second factor removed',
  'invited',
  'joined',
  'person changed',
  'suspended',
  'let in again',
  'forms handed over',
  'workspace changed',
  'team saved',
  'team deleted',
  'rights changed',
  'refused',
  'approval asked for',
  'released',
  'version withdrawn',
  'version put back',
  'opening changed',
  'link made',
  'link changed',
  'link removed',
  'people asked',
  'links posted',
  'passphrase changed',
  'deleted',
  'response seen',
  'file fetched',
  'responses exported',
  'responses brought in',
  'response corrected',
  'responses deleted',
  'responses put back',
  'personal answers taken out',
  'retention changed',
  'one person looked for',
  'one person handed out',
  'trays changed',
  'access key made',
  'access key revoked',
] as const
export type Act = (typeof ACTS)[number]

/** Who did something, and from where. */
export interface Doer {
  id: string | null
  name: string
  source: string
}

/** How long lines are kept. */
const KEPT_DAYS = 400
const PAGE = 50
const LONGEST = 200

/** Writes a line of the record. `about` and `details` name what was done to; answers and secrets have no place in them. */
export async function keepRecord(
  db: Database,
  { id, name, source }: Doer,
  act: Act,
  {
    form,
    about = '',
    details = {},
  }: { form?: string; about?: string; details?: Readonly<Record<string, string>> } = {},
): Promise<void> {
  await db
    .insert(record)
    .values({ userId: id, who: name, source, act, formId: form, about: about.slice(0, LONGEST), details })
}

/** A page of the record, the newest first. */
export async function listRecord(
  db: Database,
  { page, act, search }: z.output<typeof RecordQuery>,
): Promise<{ count: number; lines: RecordLine[] }> {
  const like = asPattern(search)
  const fits = and(
    act === '' ? undefined : eq(record.act, act),
    search === ''
      ? undefined
      : or(ilike(record.who, like), ilike(record.about, like), ilike(record.source, like)),
  )
  const [found] = await db.select({ number: count() }).from(record).where(fits)
  const rows = await db
    .select({ line: record, form: forms.title })
    .from(record)
    .leftJoin(forms, eq(record.formId, forms.id))
    .where(fits)
    .orderBy(desc(record.at), desc(record.id))
    .limit(PAGE)
    .offset((page - 1) * PAGE)
  const lines = rows.map(({ line: { id, at, who, source, act: done, about, details }, form }) => ({
    id,
    at: at.toISOString(),
    who,
    source,
    act: done,
    about,
    form,
    details,
  }))
  return { count: Number(found?.number ?? 0), lines }
}

/** Clears lines that are older than they are kept. */
export async function sweepRecord(db: Database): Promise<void> {
  await db.delete(record).where(lt(record.at, sql`now() - make_interval(days => ${KEPT_DAYS})`))
}

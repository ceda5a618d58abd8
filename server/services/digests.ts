import { and, asc, count, eq, gt, isNotNull, type SQL } from 'drizzle-orm'
import type { Digest, ViewSettings } from '../../shared/api/workbench'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { forms, releases, responses, views } from '../store/schema'
import { findPowers } from './people/rights'
import { selectionIfAskable } from './selectResponses'
import { addressesOfTeams } from './teamRows'
import { loadVersions } from './versions'

/** So many new responses are named; of the others only the number is. */
const MOST_NAMED = 20
const DAY = 86_400_000

/** Posts the digests that are due: once in each day or week, whoever else looks at the same time, and only where something has come in. */
export async function postDigests(db: Database, now = new Date()): Promise<void> {
  const kept = await db.select({ id: views.id }).from(views).where(isNotNull(views.digest))
  for (const { id } of kept) await db.transaction(tx => postDigest(tx, id, now))
}

/** The moment from which on a digest is due again: the beginning of the day or the week, in UTC. */
export function beginningOf(every: Digest['every'], now: Date): Date {
  const midnight = Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate())
  const sinceMonday = (now.getUTCDay() + 6) % 7
  return new Date(every === 'day' ? midnight : midnight - sinceMonday * DAY)
}

async function postDigest(db: Database, id: string, now: Date): Promise<void> {
  const [view] = await db.select().from(views).where(eq(views.id, id)).for('update', { skipLocked: true })
  if (!view?.digest || view.digestedAt === null) return
  if (view.digestedAt >= beginningOf(view.digest.every, now)) return
  await db.update(views).set({ digestedAt: now }).where(eq(views.id, id))
  // Who keeps the view may have lost the right to see what is in it.
  if (!(await findPowers(db, view.userId, view.formId)).has('responses')) return
  const found = await findNew(db, view.formId, view.settings, view.digestedAt)
  if (!found || found.added.length === 0) return
  const to = await recipientsOf(db, view.digest)
  const [form] = await db.select({ title: forms.title }).from(forms).where(eq(forms.id, view.formId))
  const subject = `${form?.title ?? ''}: ${found.count} new in “${view.name}”`
  const text = digestText(view, found)
  await sendMail(
    db,
    to.map(address => ({ responseId: null, to: address, subject, text })),
  )
}

interface Found {
  /** How many stand in the view, and how many of them are new, with the first of those. */
  all: number
  count: number
  added: { number: number; sentAt: Date }[]
}

/** What has come into a view since a moment; null where its filter can’t be asked any more, which is said where it is opened. */
async function findNew(
  db: Database,
  formId: string,
  { filter }: ViewSettings,
  since: Date,
): Promise<Found | null> {
  const definitions = await loadVersions(db, formId)
  const where = selectionIfAskable(formId, filter, definitions)
  if (!where) return null
  const isNew = and(where, gt(responses.sentAt, since))
  const counted = async (fits: SQL | undefined) => {
    const [row] = await db
      .select({ number: count() })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(fits)
    return Number(row?.number ?? 0)
  }
  const added = await db
    .select({ number: responses.number, sentAt: responses.sentAt })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(isNew)
    .orderBy(asc(responses.number))
    .limit(MOST_NAMED)
  return { all: await counted(where), count: await counted(isNew), added }
}

async function recipientsOf(db: Database, { to }: Digest): Promise<string[]> {
  if ('addresses' in to) return to.addresses
  return (await addressesOfTeams(db, [to.team])).get(to.team) ?? []
}

/** A digest tells numbers and days, no answers: it may be read by others than those who may see them. */
function digestText(
  { id, formId, digestedAt }: Pick<typeof views.$inferSelect, 'id' | 'formId' | 'digestedAt'>,
  { all, count: added, added: first }: Found,
): string {
  const named = first.map(r => `No. ${r.number}, sent ${r.sentAt.toISOString().slice(0, 10)}`)
  const more = added > first.length ? [`and ${added - first.length} more`] : []
  return [
    `New since ${digestedAt?.toISOString().slice(0, 10) ?? ''}: ${added}. In all it shows ${all}.`,
    [...named, ...more].join('\n'),
    `Open /forms/${formId}/collect?view=${id} to see them.`,
  ].join('\n\n')
}

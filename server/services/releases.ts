import { randomBytes } from 'node:crypto'
import { and, desc, eq, max } from 'drizzle-orm'
import { findAcceptance, type Accepted } from '../../core/prove/acceptance'
import { prove } from '../../core/prove/prove'
import type { Database } from '../store/database'
import { acceptances, forms, releases } from '../store/schema'
import { refuse, type Designer } from '../http/route'

export const todayText = (now = new Date()): string =>
  new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)

/** Proves the draft once more and freezes it: refused while a fault is open, or a risk that nobody accepted as it stands. */
export async function release(db: Database, id: string, designer: Designer, revision: number) {
  return db.transaction(async tx => {
    const [row] = await tx.select().from(forms).where(eq(forms.id, id)).for('update')
    if (!row) return refuse(404, 'not-found', 'There is no such form.')
    if (row.revision !== revision)
      return refuse(
        409,
        'outdated',
        'The draft has changed since you looked. Look at it again, then release.',
      )
    const { findings } = prove(row.draft, todayText())
    const faults = findings.filter(f => f.severity === 'fault')
    if (faults.length > 0)
      return refuse(
        422,
        'open-faults',
        `${faults.length === 1 ? 'A fault is' : `${faults.length} faults are`} open, so this can’t be released.`,
        faults.map(f => ({ path: f.at ?? '', sentence: f.sentence })),
      )
    const risks = findings.filter(f => f.severity === 'risk')
    const known = (await tx.select().from(acceptances).where(eq(acceptances.formId, id))).map(a => ({
      ...a,
      at: a.at.toISOString(),
    }))
    const accepted = risks.map(finding => ({ finding, by: findAcceptance(row.draft, finding, known) }))
    const open = accepted.flatMap(({ finding, by }) => (by ? [] : [finding]))
    if (open.length > 0)
      return refuse(
        422,
        'open-risks',
        `${open.length === 1 ? 'A risk needs' : `${open.length} risks need`} a reason before this is released.`,
        open.map(f => ({ path: f.at ?? '', sentence: f.sentence })),
      )
    const [last] = await tx
      .select({ number: max(releases.number) })
      .from(releases)
      .where(eq(releases.formId, id))
    const made = {
      formId: id,
      number: (last?.number ?? 0) + 1,
      token: randomBytes(12).toString('base64url'),
      definition: row.draft,
      findings,
      accepted: accepted.map(({ finding, by }) => ({ finding, reason: by?.reason ?? '', by: by?.by ?? '' })),
      releasedBy: designer.id,
    }
    await tx.insert(releases).values(made)
    return { number: made.number, token: made.token }
  })
}

/** The releases of a form, the newest first. */
export async function releasesOf(db: Database, id: string) {
  const rows = await db.select().from(releases).where(eq(releases.formId, id)).orderBy(desc(releases.number))
  return rows.map(r => ({
    id: r.id,
    number: r.number,
    token: r.token,
    releasedAt: r.releasedAt.toISOString(),
    accepted: r.accepted,
    definition: r.definition,
  }))
}

/** Accepts a risk of a draft in somebody's name, or takes the acceptance back where there is no reason. */
export async function accept(
  db: Database,
  id: string,
  designer: Designer,
  { key, basis, reason }: { key: string; basis: string; reason: string },
) {
  const [row] = await db.select({ id: forms.id }).from(forms).where(eq(forms.id, id))
  if (!row) return refuse(404, 'not-found', 'There is no such form.')
  if (reason === '')
    await db.delete(acceptances).where(and(eq(acceptances.formId, id), eq(acceptances.key, key)))
  else {
    const values = { basis, reason, by: designer.name, at: new Date() }
    await db
      .insert(acceptances)
      .values({ formId: id, key, ...values })
      .onConflictDoUpdate({ target: [acceptances.formId, acceptances.key], set: values })
  }
  return acceptancesOf(db, id)
}

/** The risks of a draft that were accepted. */
export async function acceptancesOf(db: Database, id: string): Promise<Accepted[]> {
  const rows = await db.select().from(acceptances).where(eq(acceptances.formId, id))
  return rows.map(({ key, basis, reason, by, at }) => ({ key, basis, reason, by, at: at.toISOString() }))
}

import { randomBytes } from 'node:crypto'
import { desc, eq, max } from 'drizzle-orm'
import { prove } from '../../core/prove/prove'
import type { Database } from '../store/database'
import { forms, releases } from '../store/schema'
import { refuse, type Designer } from '../http/route'

export const todayText = (now = new Date()): string => new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)

/** Proves the draft once more and freezes it: refused while a fault is open, or a risk without a reason. */
export async function release(db: Database, id: string, designer: Designer, revision: number, reasons: readonly string[]) {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(forms).where(eq(forms.id, id)).for('update')
    if (!row) return refuse(404, 'not-found', 'There is no such form.')
    if (row.revision !== revision) return refuse(409, 'outdated', 'The draft has changed since you looked. Look at it again, then release.')
    const { findings } = prove(row.draft, todayText())
    const faults = findings.filter(f => f.severity === 'fault')
    if (faults.length > 0) return refuse(422, 'open-faults', `${faults.length === 1 ? 'A fault is' : `${faults.length} faults are`} open, so this can’t be released.`, faults.map(f => ({ path: f.at ?? '', sentence: f.sentence })))
    const risks = findings.filter(f => f.severity === 'risk')
    const open = risks.filter((_, i) => !reasons[i])
    if (open.length > 0) return refuse(422, 'open-risks', `${open.length === 1 ? 'A risk needs' : `${open.length} risks need`} a reason before this is released.`, open.map(f => ({ path: f.at ?? '', sentence: f.sentence })))
    const [last] = await tx.select({ number: max(releases.number) }).from(releases).where(eq(releases.formId, id))
    const made = {
      formId: id, number: (last?.number ?? 0) + 1, token: randomBytes(12).toString('base64url'), definition: row.draft, findings,
      accepted: risks.map((finding, i) => ({ finding, reason: reasons[i] ?? '', by: designer.name })), releasedBy: designer.id,
    }
    await tx.insert(releases).values(made)
    return { number: made.number, token: made.token }
  })
}

/** The releases of a form, the newest first. */
export async function releasesOf(db: Database, id: string) {
  const rows = await db.select().from(releases).where(eq(releases.formId, id)).orderBy(desc(releases.number))
  return rows.map(r => ({ id: r.id, number: r.number, token: r.token, releasedAt: r.releasedAt.toISOString(), accepted: r.accepted, definition: r.definition }))
}

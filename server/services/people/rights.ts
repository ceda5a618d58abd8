import { eq, and, inArray, or, sql } from 'drizzle-orm'
import { RIGHTS, type Power, type Right } from '../../../shared/api/sharing'
import type { Database } from '../../store/database'
import { formRights, teamMembers } from '../../store/schema'

/** What a right brings with it. */
const BRINGS: Record<Right, readonly Power[]> = {
  own: [...RIGHTS, 'read'],
  design: ['design', 'suggest', 'read'],
  suggest: ['suggest', 'read'],
  release: ['release', 'read'],
  responses: ['responses', 'read'],
  act: ['act'],
}

/** Everything that some rights allow. */
export const powersOf = (rights: readonly Right[]): Set<Power> => new Set(rights.flatMap(r => BRINGS[r]))

/** The rows of rights that are somebody's: their own and those of their teams. */
export const isTheirs = (db: Database, userId: string) =>
  or(
    eq(formRights.userId, userId),
    inArray(
      formRights.teamId,
      db.select({ id: teamMembers.teamId }).from(teamMembers).where(eq(teamMembers.userId, userId)),
    ),
  )

/** What somebody may do with a form, by themselves and through their teams. */
export async function findPowers(db: Database, userId: string, formId: string): Promise<Set<Power>> {
  const rows = await db
    .select({ rights: formRights.rights })
    .from(formRights)
    .where(and(eq(formRights.formId, formId), isTheirs(db, userId)))
  return powersOf(rows.flatMap(r => r.rights))
}

/** What somebody may do, by form: only forms with which they may do something. */
export async function listPowers(db: Database, userId: string): Promise<Map<string, Set<Power>>> {
  const rows = await db
    .select({ formId: formRights.formId, rights: formRights.rights })
    .from(formRights)
    .where(isTheirs(db, userId))
  const rights = new Map<string, Right[]>()
  for (const row of rows) rights.set(row.formId, [...(rights.get(row.formId) ?? []), ...row.rights])
  return new Map([...rights].map(([form, own]) => [form, powersOf(own)]))
}

/** The forms with which somebody may do something. */
export async function listFormsWith(db: Database, userId: string, power: Power): Promise<string[]> {
  const powers = await listPowers(db, userId)
  return [...powers].flatMap(([form, own]) => (own.has(power) ? [form] : []))
}

/** Makes somebody the owner of a form that has just been made. */
export async function makeOwner(db: Database, formId: string, userId: string): Promise<void> {
  await db.insert(formRights).values({ formId, userId, rights: ['own'] })
}

/** Whether a row of rights owns its form. */
export const isOwning = sql<boolean>`${formRights.rights} @> '["own"]'::jsonb`

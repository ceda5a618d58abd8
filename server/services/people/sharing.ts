import { and, asc, eq, isNull, ne } from 'drizzle-orm'
import type { Holder, Right, Share } from '../../../shared/api/sharing'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { formRights, forms, teamMembers, teams, users } from '../../store/schema'
import { isOwning } from './rights'

/** With whom a form is shared: people, then teams, by name. */
export async function listShares(db: Database, formId: string): Promise<Share[]> {
  const people = await db
    .select({ id: users.id, name: users.name, email: users.email, rights: formRights.rights })
    .from(formRights)
    .innerJoin(users, eq(formRights.userId, users.id))
    .where(eq(formRights.formId, formId))
    .orderBy(asc(users.name))
  const groups = await db
    .select({ id: teams.id, name: teams.name, rights: formRights.rights })
    .from(formRights)
    .innerJoin(teams, eq(formRights.teamId, teams.id))
    .where(eq(formRights.formId, formId))
    .orderBy(asc(teams.name))
  return [
    ...people.map(({ id, ...rest }): Share => ({ holder: { kind: 'person', id }, ...rest })),
    ...groups.map(({ id, ...rest }): Share => ({ holder: { kind: 'team', id }, email: null, ...rest })),
  ]
}

/** Gives somebody exactly these rights to a form, all at once. Refused when nobody would own it any more. @returns the holder's name */
export async function shareForm(
  db: Database,
  formId: string,
  { holder, rights }: { holder: Holder; rights: readonly Right[] },
): Promise<string> {
  return db.transaction(async tx => {
    await tx.select({ id: forms.id }).from(forms).where(eq(forms.id, formId)).for('update')
    const name = await nameOf(tx, holder)
    const column = holder.kind === 'person' ? formRights.userId : formRights.teamId
    const isTheirs = and(eq(formRights.formId, formId), eq(column, holder.id))
    await tx.delete(formRights).where(isTheirs)
    const key = holder.kind === 'person' ? { userId: holder.id } : { teamId: holder.id }
    const kept = [...new Set(rights)]
    if (kept.length > 0) await tx.insert(formRights).values({ formId, ...key, rights: kept })
    if (!(await isOwned(tx, formId)))
      refuse(
        409,
        'no-owner',
        'Somebody who can sign in has to own this form. Make somebody else an owner first.',
      )
    return name
  })
}

async function nameOf(db: Database, { kind, id }: Holder): Promise<string> {
  const [found] =
    kind === 'person'
      ? await db.select({ name: users.name }).from(users).where(eq(users.id, id))
      : await db.select({ name: teams.name }).from(teams).where(eq(teams.id, id))
  return found?.name ?? refuse(422, 'nobody', 'This person or team is not in the workspace any more.')
}

/** Who owns each form and is not suspended, by themselves or through a team. */
export async function listOwners(db: Database): Promise<Map<string, Set<string>>> {
  const owning = and(isOwning, isNull(users.suspendedAt))
  const people = await db
    .select({ formId: formRights.formId, userId: users.id })
    .from(formRights)
    .innerJoin(users, eq(formRights.userId, users.id))
    .where(owning)
  const members = await db
    .select({ formId: formRights.formId, userId: users.id })
    .from(formRights)
    .innerJoin(teamMembers, eq(formRights.teamId, teamMembers.teamId))
    .innerJoin(users, eq(teamMembers.userId, users.id))
    .where(owning)
  const owners = new Map<string, Set<string>>()
  for (const { formId, userId } of [...people, ...members])
    owners.set(formId, (owners.get(formId) ?? new Set()).add(userId))
  return owners
}

/** Whether somebody owns a form who is not suspended, by themselves or through a team. `except`: as if this person were gone. */
export async function isOwned(db: Database, formId: string, except?: string): Promise<boolean> {
  const others = except ? ne(users.id, except) : undefined
  const owning = and(eq(formRights.formId, formId), isOwning, isNull(users.suspendedAt), others)
  const people = await db
    .select({ id: users.id })
    .from(formRights)
    .innerJoin(users, eq(formRights.userId, users.id))
    .where(owning)
    .limit(1)
  if (people.length > 0) return true
  const members = await db
    .select({ id: users.id })
    .from(formRights)
    .innerJoin(teamMembers, eq(formRights.teamId, teamMembers.teamId))
    .innerJoin(users, eq(teamMembers.userId, users.id))
    .where(owning)
    .limit(1)
  return members.length > 0
}

import { and, asc, count, eq, isNull, max, ne, sql } from 'drizzle-orm'
import type { Person, Role } from '../../../shared/api/people'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { formRights, sessions, users } from '../../store/schema'
import { postKey } from './oneTimeKeys'
import type { User } from './passwords'
import { isOwning, isTheirs } from './rights'
import { removeSecondFactor } from './secondFactor'
import { endSessions } from './sessions'
import { isOwned, listOwners } from './sharing'

/** The lock under which it is decided whether an admin is left. */
const ADMIN_LOCK = 7_204_118

const stateOf = ({ suspendedAt, passwordHash }: User): Person['state'] => {
  if (suspendedAt !== null) return 'suspended'
  return passwordHash === null ? 'invited' : 'active'
}

/** Everybody in the workspace, by name. */
export async function listPeople(db: Database): Promise<Person[]> {
  const rows = await db
    .select({ user: users, seenAt: max(sessions.seenAt) })
    .from(users)
    .leftJoin(sessions, eq(sessions.userId, users.id))
    .groupBy(users.id)
    .orderBy(asc(users.name))
  const owners = [...(await listOwners(db)).values()]
  return rows.map(({ user, seenAt }) => ({
    id: user.id,
    name: user.name,
    email: user.email,
    role: user.role,
    state: stateOf(user),
    hasSecondFactor: user.totpConfirmed,
    seenAt: seenAt?.toISOString() ?? null,
    ownsAlone: owners.filter(own => own.size === 1 && own.has(user.id)).length,
  }))
}

/** The forms that only this person owns, by themselves or as the only one of a team who can sign in. */
async function ownedAlone(db: Database, userId: string): Promise<string[]> {
  const owned = await db
    .selectDistinct({ formId: formRights.formId })
    .from(formRights)
    .where(and(isTheirs(db, userId), isOwning))
  const alone = await Promise.all(
    owned.map(async ({ formId }) => ((await isOwned(db, formId, userId)) ? [] : [formId])),
  )
  return alone.flat()
}

/** Somebody by their id; refused when there is nobody. */
export async function loadUser(db: Database, id: string): Promise<User> {
  const [user] = await db.select().from(users).where(eq(users.id, id))
  return user ?? refuse(404, 'not-found', 'There is no such person.')
}

/** Somebody by their address; null when there is nobody. */
export async function findByEmail(db: Database, email: string): Promise<User | null> {
  const [user] = await db.select().from(users).where(eq(users.email, email.trim().toLowerCase()))
  return user ?? null
}

/** Invites somebody: they are posted a link to choose their password. @returns the link's path */
export async function invitePerson(
  db: Database,
  { name, email, role }: { name: string; email: string; role: Role },
  by: string,
): Promise<{ link: string }> {
  return db.transaction(async tx => {
    const [user] = await tx.insert(users).values({ name, email, role }).onConflictDoNothing().returning()
    if (!user) {
      const sentence = `${email} is in the workspace already.`
      return refuse(409, 'email-taken', sentence, [{ path: 'email', sentence }])
    }
    return { link: await postKey(tx, user, 'invite', by) }
  })
}

/** What an admin changes about somebody. */
interface PersonChange {
  name?: string
  role?: Role
  isSuspended?: boolean
  withoutSecondFactor?: true
}

/** Changes somebody; refused when no admin, or a form without an owner, would be left. */
export async function changePerson(db: Database, id: string, change: PersonChange): Promise<User> {
  return db.transaction(async tx => {
    await tx.execute(sql`select pg_advisory_xact_lock(${ADMIN_LOCK})`)
    const user = await loadUser(tx, id)
    const { name = user.name, role = user.role, isSuspended, withoutSecondFactor } = change
    const suspendedAt = suspendedSince(user, isSuspended)
    if (suspendedAt !== null || role !== 'admin') await refuseLastAdmin(tx, id)
    if (suspendedAt !== null && user.suspendedAt === null) await refuseOwningAlone(tx, user)
    await tx.update(users).set({ name, role, suspendedAt }).where(eq(users.id, id))
    if (suspendedAt !== null) await endSessions(tx, id)
    if (withoutSecondFactor) await removeSecondFactor(tx, id)
    return user
  })
}

function suspendedSince({ suspendedAt }: User, isSuspended: boolean | undefined): Date | null {
  if (isSuspended === undefined) return suspendedAt
  return isSuspended ? (suspendedAt ?? new Date()) : null
}

async function refuseLastAdmin(db: Database, except: string) {
  const [left] = await db
    .select({ number: count() })
    .from(users)
    .where(and(eq(users.role, 'admin'), isNull(users.suspendedAt), ne(users.id, except)))
  if (Number(left?.number ?? 0) === 0)
    refuse(409, 'last-admin', 'Nobody else is an admin. Make somebody else an admin first.')
}

async function refuseOwningAlone(db: Database, { id, name }: User) {
  const alone = await ownedAlone(db, id)
  if (alone.length === 0) return
  const forms = alone.length === 1 ? 'a form' : `${alone.length} forms`
  refuse(409, 'owns-alone', `${name} is the only owner of ${forms}. Hand them over first.`)
}

/** Makes somebody else an owner of every form that only this person owns. @returns how many there were */
export async function handOverForms(db: Database, from: string, to: string): Promise<number> {
  return db.transaction(async tx => {
    const heir = await loadUser(tx, to)
    if (heir.suspendedAt !== null || to === from)
      refuse(422, 'nobody', 'Choose somebody else, who is not suspended.')
    const alone = await ownedAlone(tx, from)
    for (const formId of alone) {
      const own = { rights: ['own' as const] }
      await tx
        .insert(formRights)
        .values({ formId, userId: to, ...own })
        .onConflictDoUpdate({ target: [formRights.formId, formRights.userId], set: own })
    }
    return alone.length
  })
}

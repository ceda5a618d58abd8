import { asc, eq, inArray, isNull } from 'drizzle-orm'
import type { Directory, Team } from '../../../shared/api/people'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { formRights, teamMembers, teams, users } from '../../store/schema'
import { isOwned } from './sharing'

/** So many names that a team had are kept. */
const MOST_FORMER = 20

/** The teams with who is in them, by name. */
export async function listTeams(db: Database): Promise<Team[]> {
  const rows = await db.select().from(teams).orderBy(asc(teams.name))
  const members = await db.select().from(teamMembers)
  return rows.map(({ id, name }) => ({
    id,
    name,
    members: members.filter(m => m.teamId === id).map(m => m.userId),
  }))
}

/** With whom something can be shared. */
export async function loadDirectory(db: Database): Promise<Directory> {
  const people = await db
    .select({ id: users.id, name: users.name, email: users.email })
    .from(users)
    .where(isNull(users.suspendedAt))
    .orderBy(asc(users.name))
  return { people, teams: await listTeams(db) }
}

/** Saves a team with exactly these members; `id` null makes one. Refused where a form would lose its last owner, or the name is taken. */
export async function saveTeam(
  db: Database,
  id: string | null,
  { name, members }: { name: string; members: readonly string[] },
): Promise<{ id: string }> {
  return db.transaction(async tx => {
    await refuseTakenName(tx, id, name)
    const teamId = await storeTeam(tx, id, name)
    const known =
      members.length === 0
        ? []
        : await tx
            .select({ id: users.id })
            .from(users)
            .where(inArray(users.id, [...members]))
    await tx.delete(teamMembers).where(eq(teamMembers.teamId, teamId))
    if (known.length > 0) await tx.insert(teamMembers).values(known.map(u => ({ teamId, userId: u.id })))
    await refuseUnowned(tx, await formsOf(tx, teamId))
    return { id: teamId }
  })
}

async function refuseTakenName(db: Database, id: string | null, name: string) {
  const [same] = await db.select({ id: teams.id }).from(teams).where(eq(teams.name, name))
  if (!same || same.id === id) return
  const sentence = `There is a team “${name}” already.`
  refuse(409, 'name-taken', sentence, [{ path: 'name', sentence }])
}

async function storeTeam(db: Database, id: string | null, name: string): Promise<string> {
  if (id === null) {
    const [made] = await db.insert(teams).values({ name }).returning({ id: teams.id })
    return made?.id ?? refuse(500, 'not-stored', 'The team could not be stored.')
  }
  const [before] = await db.select().from(teams).where(eq(teams.id, id)).for('update')
  if (!before) return refuse(404, 'not-found', 'There is no such team.')
  const former = [...before.formerNames, before.name].filter(
    (n, i, all) => n !== name && all.indexOf(n) === i,
  )
  await db
    .update(teams)
    .set({ name, formerNames: former.slice(-MOST_FORMER) })
    .where(eq(teams.id, id))
  return id
}

/** Deletes a team; its rights go with it. */
export async function deleteTeam(db: Database, id: string): Promise<string> {
  return db.transaction(async tx => {
    const concerned = await formsOf(tx, id)
    const [gone] = await tx.delete(teams).where(eq(teams.id, id)).returning({ name: teams.name })
    if (!gone) return refuse(404, 'not-found', 'There is no such team.')
    await refuseUnowned(tx, concerned)
    return gone.name
  })
}

async function formsOf(db: Database, teamId: string): Promise<string[]> {
  const rows = await db
    .select({ id: formRights.formId })
    .from(formRights)
    .where(eq(formRights.teamId, teamId))
  return rows.map(r => r.id)
}

async function refuseUnowned(db: Database, formIds: readonly string[]) {
  for (const id of formIds)
    if (!(await isOwned(db, id)))
      refuse(409, 'no-owner', 'A form would have no owner left. Make somebody else its owner first.')
}

import { and, asc, eq, isNull } from 'drizzle-orm'
import type { Row } from '../../core/form/choiceLists'
import type { Form } from '../../core/form/definition'
import { peopleLists, type PeopleRows } from '../../core/lists/people'
import type { Database } from '../store/database'
import { teamMembers, teams, users } from '../store/schema'

/** So much of somebody's id is their code in lists. */
const CODE_LETTERS = 12
const codeOf = (userId: string) => `p${userId.replaceAll('-', '').slice(0, CODE_LETTERS)}`

/** The teams as a form may name them: by their names, and by what they were called before. */
async function listNamedTeams(db: Database): Promise<Map<string, string>> {
  const rows = await db.select({ id: teams.id, name: teams.name, former: teams.formerNames }).from(teams)
  const former = rows.flatMap(row => row.former.map(name => [name, row.id] as const))
  return new Map([...former, ...rows.map(row => [row.name, row.id] as const)])
}

/** The people of each team that a form's lists are fed by, as rows by list; a list whose team is gone is left out. */
export async function presentPeople(db: Database, form: Form): Promise<PeopleRows> {
  const lists = peopleLists(form)
  if (lists.length === 0) return {}
  const named = await listNamedTeams(db)
  const found = await Promise.all(
    lists.map(async list => {
      const team = named.get(list.people)
      return team === undefined ? [] : [[list.code, await rowsOfTeam(db, team)] as const]
    }),
  )
  return Object.fromEntries(found.flat())
}

/** Who of a team can sign in or is invited, by name: each with a code that never changes. */
async function rowsOfTeam(db: Database, teamId: string): Promise<Row[]> {
  const members = await db
    .select({ id: users.id, name: users.name, email: users.email })
    .from(teamMembers)
    .innerJoin(users, eq(teamMembers.userId, users.id))
    .where(and(eq(teamMembers.teamId, teamId), isNull(users.suspendedAt)))
    .orderBy(asc(users.name), asc(users.id))
  return members.map(({ id, name, email }) => ({ code: codeOf(id), label: name, email }))
}

/** The addresses of the people of some teams, by the team's name as it is asked for; a team that is gone is left out. */
export async function addressesOfTeams(
  db: Database,
  names: readonly string[],
): Promise<Map<string, string[]>> {
  const named = await listNamedTeams(db)
  const found = new Map<string, string[]>()
  for (const name of names) {
    const team = named.get(name)
    if (team === undefined) continue
    const rows = await rowsOfTeam(db, team)
    found.set(
      name,
      rows.flatMap(row => (typeof row.email === 'string' ? [row.email] : [])),
    )
  }
  return found
}

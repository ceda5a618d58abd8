import { eq } from 'drizzle-orm'
import type { Role } from '../../shared/api/people'
import type { Right } from '../../shared/api/sharing'
import type { Database } from '../store/database'
import { saveLook } from './looks'
import { saveWorkspace } from './workspace'
import { formRights, forms, teamMembers, teams, users } from '../store/schema'

/** Whom the demo data belongs to; `npm run demo` prints this. Everybody in the demo has this password. */
export const DEMO_OWNER = {
  email: 'ines@wherry.example',
  password: 'wherry-reach',
  name: 'Ines Marlow',
} as const

const PEOPLE: readonly { name: string; email: string; role: Role }[] = [
  { name: DEMO_OWNER.name, email: DEMO_OWNER.email, role: 'admin' },
  { name: 'Tobias Fenn', email: 'tobias@wherry.example', role: 'maker' },
  { name: 'Orla Quay', email: 'office@wherry.example', role: 'member' },
  { name: 'Bram Hoyle', email: 'lift@wherry.example', role: 'member' },
  { name: 'Wyn Calder', email: 'surveyor@wherry.example', role: 'member' },
]

const TEAMS: readonly { name: string; members: readonly string[] }[] = [
  { name: 'Yard office', members: ['office@wherry.example', 'lift@wherry.example'] },
  { name: 'Surveyors', members: ['surveyor@wherry.example'] },
]

/** By the code of a form: which people and teams may do what with it, besides its owner. */
const SHARES: Readonly<Record<string, readonly { to: string; rights: Right[] }[]>> = {
  haul_out: [
    { to: 'tobias@wherry.example', rights: ['design', 'release'] },
    { to: 'Yard office', rights: ['responses', 'act'] },
    { to: 'Surveyors', rights: ['act'] },
  ],
  mooring: [{ to: 'tobias@wherry.example', rights: ['design'] }],
  slipway_incident: [{ to: 'office@wherry.example', rights: ['suggest'] }],
}

/** The people and teams of the demo; gives the first person's id. */
export async function seedPeople(db: Database, passwordHash: string): Promise<string> {
  const made = await db
    .insert(users)
    .values(PEOPLE.map(person => ({ ...person, passwordHash })))
    .returning({ id: users.id, email: users.email })
  const idOf = (email: string) => made.find(u => u.email === email)?.id ?? ''
  for (const { name, members } of TEAMS) {
    const [team] = await db.insert(teams).values({ name }).returning({ id: teams.id })
    if (!team) throw new Error(`The team “${name}” could not be stored.`)
    await db.insert(teamMembers).values(members.map(m => ({ teamId: team.id, userId: idOf(m) })))
  }
  await saveWorkspace(db, { name: 'Wherry Reach Boatyard', address: '4 Slip Lane\nWherry Reach' })
  await saveLook(db, { name: 'Yard blue', accent: '#1d4f7c', corner: 6 })
  return idOf(DEMO_OWNER.email)
}

/** Shares the demo's forms. */
export async function seedShares(db: Database): Promise<void> {
  const all = await db.select({ id: forms.id, draft: forms.draft }).from(forms)
  for (const { id, draft } of all)
    for (const { to, rights } of SHARES[draft.code] ?? [])
      await db.insert(formRights).values({ formId: id, rights, ...(await holderOf(db, to)) })
}

async function holderOf(db: Database, to: string): Promise<{ userId?: string; teamId?: string }> {
  const [team] = await db.select({ id: teams.id }).from(teams).where(eq(teams.name, to))
  if (team) return { teamId: team.id }
  const [user] = await db.select({ id: users.id }).from(users).where(eq(users.email, to))
  return { userId: user?.id }
}

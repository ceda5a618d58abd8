import { and, eq, isNull, lt, or, sql } from 'drizzle-orm'
import { Audience } from '../../core/form/audience'
import { isProof } from '../../core/form/proofOfWork'
import type { Sending } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, personCounts, teamMembers, teams, ways } from '../store/schema'
import type { Entrance } from './entrances'
import type { LinkUse } from './links'
import { isPassword } from './people/passwords'
import { countWithin } from './people/tallies'
import { digestOf } from './people/tokens'

/** Who may answer, as the form says it. */
const audienceOf = ({ settings }: Pick<Entrance, 'settings'>): Audience =>
  settings?.audience ?? Audience.parse({})

/** Refuses whoever may not answer by a link, or doesn’t know its passphrase. */
export async function refuseUnlessAdmitted(db: Database, use: LinkUse, entrance: Entrance): Promise<void> {
  const { way, passphraseHash } = entrance
  if (way?.kind !== 'person') await refuseUnlessMeant(db, use, audienceOf(entrance))
  if (passphraseHash !== null && use.passes?.includes(passOf(passphraseHash)) !== true)
    refuse(401, 'passphrase', 'This form is opened by a passphrase.')
}

async function refuseUnlessMeant(db: Database, { caller }: LinkUse, audience: Audience): Promise<void> {
  const { who, listed, team } = audience
  if (who === 'all') return
  if (who === 'invited')
    return refuse(
      403,
      'not-invited',
      'This form is answered by personal links. Open the one that was sent to you.',
    )
  if (!caller) return refuse(401, 'sign-in', 'Sign in to answer this form.')
  if (who === 'listed' && !listed.includes(caller.email)) refuseOthers()
  if (who === 'team' && !(await isInTeam(db, team, caller.id))) refuseOthers()
}

const refuseOthers = () =>
  refuse(
    403,
    'not-invited',
    'This form is for others. You are signed in under an address that is not on its list.',
  )

async function isInTeam(db: Database, name: string, userId: string): Promise<boolean> {
  const isCalled = or(eq(teams.name, name), sql`${teams.formerNames} @> ${JSON.stringify([name])}::jsonb`)
  const [found] = await db
    .select({ id: teams.id })
    .from(teamMembers)
    .innerJoin(teams, eq(teams.id, teamMembers.teamId))
    .where(and(eq(teamMembers.userId, userId), isCalled))
  return found !== undefined
}

/** What is kept in the browser of whoever knew the passphrase: it holds until there is another one. */
const passOf = (passphraseHash: string): string => digestOf(`pass ${passphraseHash}`)

/** The pass of whoever knows the passphrase of a form; refused to others. */
export async function givePass(passphraseHash: string | null, passphrase: string): Promise<string> {
  if (passphraseHash === null)
    return refuse(409, 'no-passphrase', 'This form asks for no passphrase. Reload the page.')
  if (await isPassword(passphraseHash, passphrase)) return passOf(passphraseHash)
  return refuse(403, 'wrong-passphrase', 'That is not the passphrase.')
}

/** Who a response is of, as far as it is kept: nothing where the form is anonymous. */
export function senderOf(
  entrance: Entrance | null,
  { caller }: LinkUse,
): { wayId: string | null; userId: string | null } {
  if (!entrance || audienceOf(entrance).isAnonymous) return { wayId: null, userId: null }
  return { wayId: entrance.way?.id ?? null, userId: caller?.id ?? null }
}

/** Refuses to begin a response by a link that takes none any more, or of somebody who has sent as many as the form takes of each. */
export async function refuseIfSpent(db: Database, use: LinkUse, entrance: Entrance): Promise<void> {
  const { way } = entrance
  const { each } = audienceOf(entrance)
  if (way?.closedAt) refuseClosed()
  if (way) return isSpent(way, each) ? refuseSpent(way) : undefined
  if (each === null || !use.caller) return
  const [own] = await db
    .select({ taken: personCounts.taken })
    .from(personCounts)
    .where(and(eq(personCounts.formId, entrance.formId), eq(personCounts.userId, use.caller.id)))
  if ((own?.taken ?? 0) >= each) refuseSpent(null)
}

type Counted = Pick<typeof ways.$inferSelect, 'kind' | 'most' | 'taken'>
/** How many responses a way takes: as many as it says, a personal one as many as the form takes of each. */
const mostOf = ({ kind, most }: Counted, each: number | null) => most ?? (kind === 'person' ? each : null)
const isSpent = (way: Counted, each: number | null): boolean => way.taken >= (mostOf(way, each) ?? Infinity)

const refuseClosed = () =>
  refuse(410, 'link-closed', 'This link was closed. Ask whoever sent it for a new one.')

function refuseSpent(way: Counted | null): never {
  return way?.kind === 'link'
    ? refuse(403, 'link-used', 'As many answers as this link takes have come in.')
    : refuse(403, 'answered', 'You have answered this form already. Thank you.')
}

/** Whether storing a response has to count whom it is of. */
export const isCounted = (entrance: Entrance | null, { caller }: LinkUse): boolean =>
  entrance !== null && (entrance.way !== null || (caller !== null && !audienceOf(entrance).isAnonymous))

/** Counts a response for its link and its sender. Refused where one more is too many: then nothing is stored. */
export async function countSender(db: Database, { caller }: LinkUse, entrance: Entrance): Promise<void> {
  const { way, formId } = entrance
  const { each, isAnonymous } = audienceOf(entrance)
  if (way) {
    const most = mostOf(way, each)
    const [counted] = await db
      .update(ways)
      .set({ taken: sql`${ways.taken} + 1` })
      .where(
        and(eq(ways.id, way.id), isNull(ways.closedAt), most === null ? undefined : lt(ways.taken, most)),
      )
      .returning({ taken: ways.taken })
    if (!counted && way.closedAt !== null) refuseClosed()
    if (!counted) refuseSpent(way)
    return
  }
  if (isAnonymous || !caller) return
  const [counted] = await db
    .insert(personCounts)
    .values({ formId, userId: caller.id, taken: 1 })
    .onConflictDoUpdate({
      target: [personCounts.formId, personCounts.userId],
      set: { taken: sql`${personCounts.taken} + 1` },
      setWhere: each === null ? undefined : lt(personCounts.taken, each),
    })
    .returning({ taken: personCounts.taken })
  if (!counted) refuseSpent(null)
}

/** Whom a response is counted for. */
interface Sender {
  wayId: string | null
  userId: string | null
}

/** A response no longer stands: its link and its sender may send another one. */
export const uncountSender = (db: Database, formId: string, sender: Sender): Promise<void> =>
  addToSender(db, formId, sender, -1)

/** A response stands again, and counts for its link and its sender, however many there are of them meanwhile. */
export const recountSender = (db: Database, formId: string, sender: Sender): Promise<void> =>
  addToSender(db, formId, sender, 1)

async function addToSender(
  db: Database,
  formId: string,
  { wayId, userId }: Sender,
  change: 1 | -1,
): Promise<void> {
  const changed = (taken: typeof ways.taken | typeof personCounts.taken) =>
    sql`greatest(0, ${taken} + ${change}::integer)`
  if (wayId !== null)
    await db
      .update(ways)
      .set({ taken: changed(ways.taken) })
      .where(eq(ways.id, wayId))
  else if (userId !== null)
    await db
      .update(personCounts)
      .set({ taken: changed(personCounts.taken) })
      .where(and(eq(personCounts.formId, formId), eq(personCounts.userId, userId)))
}

/** Whether a form bounds what one source sends, or is guarded. */
export function isBounded(entrance: Entrance): boolean {
  const { perHour, isGuarded } = audienceOf(entrance)
  return perHour !== null || isGuarded
}

/** Refuses what one source sends in masses, and what comes without the proof that a guarded form asks for. */
export async function refuseMasses(
  db: Database,
  { source = '' }: LinkUse,
  entrance: Entrance,
  { key, proof = '' }: Pick<Sending, 'key' | 'proof'>,
): Promise<void> {
  const { perHour, isGuarded } = audienceOf(entrance)
  if (isGuarded && !isProof(key, proof))
    refuse(
      403,
      'no-proof',
      'This form is guarded against programs. Reload the page and send again; what you typed is kept.',
    )
  if (perHour === null) return
  await countWithin(db, `sending ${entrance.formId} ${source}`, { most: perHour, seconds: HOUR })
}
const HOUR = 3_600

/** Sets the passphrase of a form, or takes it away. */
export const savePassphrase = async (
  db: Database,
  formId: string,
  passphraseHash: string | null,
): Promise<void> => {
  await db.update(openings).set({ passphraseHash }).where(eq(openings.formId, formId))
}

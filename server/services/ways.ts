import { randomBytes } from 'node:crypto'
import { and, asc, count, eq, isNull, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import { listPlaces } from '../../core/form/walk'
import {
  MOST_WAYS,
  type ChangeWay,
  type InvitedPeople,
  type NewLink,
  type PostInvitations,
  type Way,
} from '../../shared/api/ways'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { forms, openings, ways } from '../store/schema'
import { ensureOpening } from './openings'

type Row = typeof ways.$inferSelect
const tellWay = ({ id, kind, token, name, address, values, most, taken, closedAt, ...row }: Row): Way => ({
  ...{ id, kind, token, name, address, values, most, taken },
  isClosed: closedAt !== null,
  postedAt: row.postedAt?.toISOString() ?? null,
  remindedAt: row.remindedAt?.toISOString() ?? null,
})

/** Shorter than those of releases: they are typed off paper, too. */
const newToken = () => randomBytes(12).toString('base64url')

/** The further ways into a form, the oldest first. */
export async function listWays(db: Database, formId: string): Promise<Way[]> {
  const rows = await db
    .select()
    .from(ways)
    .where(eq(ways.formId, formId))
    .orderBy(asc(ways.madeAt), asc(ways.name))
    .limit(MOST_WAYS)
  return rows.map(tellWay)
}

async function refuseTooMany(db: Database, formId: string, more: number): Promise<void> {
  const [found] = await db.select({ number: count() }).from(ways).where(eq(ways.formId, formId))
  if ((found?.number ?? 0) + more > MOST_WAYS)
    refuse(422, 'too-many', `A form has at most ${MOST_WAYS} links; remove some first.`)
}

/** Makes a link with a name. Refused where it answers what is no hidden question. */
export async function makeWay(db: Database, formId: string, link: z.output<typeof NewLink>): Promise<Way> {
  await refuseUnknownValues(db, formId, link.values)
  await refuseTooMany(db, formId, 1)
  await ensureOpening(db, formId)
  const [made] = await db
    .insert(ways)
    .values({ ...link, formId, kind: 'link', token: newToken() })
    .returning()
  return made ? tellWay(made) : refuseUnknown()
}

const refuseUnknown = () => refuse(404, 'not-found', 'There is no such link.')

/** The values that a link answers with are those of hidden questions of the draft. */
async function refuseUnknownValues(
  db: Database,
  formId: string,
  values: Record<string, string>,
): Promise<void> {
  const codes = Object.keys(values)
  if (codes.length === 0) return
  const [form] = await db.select({ draft: forms.draft }).from(forms).where(eq(forms.id, formId))
  const hidden = new Set(
    form
      ? listPlaces(form.draft).flatMap(({ code, node }) =>
          'type' in node && node.type === 'hidden' ? [code] : [],
        )
      : [],
  )
  const unknown = codes.filter(code => !hidden.has(code))
  if (unknown.length === 0) return
  refuse(
    422,
    'unknown-value',
    'A link answers hidden questions only.',
    unknown.map(code => ({ path: code, sentence: `“${code}” is no hidden question of this form.` })),
  )
}

/** Changes a link: its name, what it answers, its limit, or whether it is closed. */
export async function changeWay(db: Database, formId: string, id: string, change: ChangeWay): Promise<Way> {
  const { isClosed, ...others } = change
  if (others.values) await refuseUnknownValues(db, formId, others.values)
  const closing = isClosed === undefined ? {} : { closedAt: isClosed ? new Date() : null }
  const [changed] = await db
    .update(ways)
    // Something has to be set: the form stays as it is.
    .set({ formId, ...others, ...closing })
    .where(and(eq(ways.formId, formId), eq(ways.id, id)))
    .returning()
  return changed ? tellWay(changed) : refuseUnknown()
}

/** Removes a link. Refused where responses came by it: it can be closed. */
export async function removeWay(db: Database, formId: string, id: string): Promise<void> {
  const own = and(eq(ways.formId, formId), eq(ways.id, id))
  const [gone] = await db
    .delete(ways)
    .where(and(own, eq(ways.taken, 0)))
    .returning({ id: ways.id })
  if (gone) return
  const [kept] = await db.select({ id: ways.id }).from(ways).where(own)
  if (!kept) refuseUnknown()
  refuse(409, 'in-use', 'Responses came by this link: it stays, so that they can be told. Close it instead.')
}

/** Gives each of some people a personal link; who has one keeps it. Refused where the form is anonymous. */
export async function invitePeople(
  db: Database,
  formId: string,
  { people }: z.output<typeof InvitedPeople>,
): Promise<{ added: number; known: number }> {
  const [opening] = await db.select().from(openings).where(eq(openings.formId, formId))
  if (!opening) return refuse(409, 'not-released', 'Release the form first: a link leads to a version.')
  if (opening.settings.audience.isAnonymous)
    refuse(
      409,
      'anonymous',
      'This form is anonymous: it can’t be answered by personal links, which tell who answers.',
    )
  const fresh = [...new Map(people.map(p => [p.address, p])).values()]
  await refuseTooMany(db, formId, fresh.length)
  const added: { id: string }[] = []
  for (let at = 0; at < fresh.length; at += AT_ONCE) {
    const rows = fresh.slice(at, at + AT_ONCE).map(({ name, address }) => ({
      ...{ formId, kind: 'person' as const, token: newToken(), address, values: {} },
      name: name || address,
    }))
    added.push(...(await db.insert(ways).values(rows).onConflictDoNothing().returning({ id: ways.id })))
  }
  return { added: added.length, known: fresh.length - added.length }
}
const AT_ONCE = 500

/** Posts personal links to those to whom none was posted, or a reminder to those who have not answered. @returns how many letters went out */
export async function postInvitations(
  db: Database,
  formId: string,
  { to, subject, text }: z.output<typeof PostInvitations>,
): Promise<number> {
  return db.transaction(async tx => {
    const isMeant = to === 'new' ? isNull(ways.postedAt) : eq(ways.taken, 0)
    const now = new Date()
    // Two who post at once write to nobody twice: who was written to is no longer meant.
    const rows = await tx
      .update(ways)
      .set(
        to === 'new'
          ? { postedAt: now }
          : { remindedAt: now, postedAt: sql`coalesce(${ways.postedAt}, now())` },
      )
      .where(
        and(
          ...[eq(ways.formId, formId), eq(ways.kind, 'person'), isNull(ways.closedAt), isMeant],
          // A reminder goes out once in an hour: a second press does not write again.
          to === 'new'
            ? undefined
            : sql`coalesce(${ways.remindedAt}, '-infinity') < now() - interval '1 hour'`,
        ),
      )
      .returning()
    for (let at = 0; at < rows.length; at += AT_ONCE)
      await sendMail(
        tx,
        rows.slice(at, at + AT_ONCE).map(row => ({
          responseId: null,
          to: row.address,
          subject: subject.slice(0, LIMITS.label),
          text: `${text}\n\nOpen /f/${row.token} to answer. The link is yours; please don’t pass it on.`.trim(),
        })),
      )
    return rows.length
  })
}

import { eq } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { z } from 'zod'
import type { Power } from '../../shared/api/sharing'
import { findPowers, listPowers } from '../services/people/rights'
import { keepRecord } from '../services/people/record'
import type { Caller } from '../services/people/sessions'
import type { Database } from '../store/database'
import { files, releases, responses, turns } from '../store/schema'
import { type Access, findRoute } from './access'
import { refuse } from './refuse'
import { sourceOf } from './source'

/** What a refused power is called. */
const WORDS: Record<Power, string> = {
  own: 'share or delete this form',
  design: 'change this form',
  suggest: 'suggest changes to this form',
  release: 'release this form',
  responses: 'see the responses of this form',
  act: 'take turns in this form',
  read: 'see this form',
}

/** What somebody may do, where a request is about a form: told to the route behind. */
export interface Admission {
  caller: Caller | null
  powers: ReadonlySet<Power>
}

/** Lets a request through, or refuses it: the one place where that is decided. */
export async function admit(
  event: H3Event,
  db: Database,
  path: string,
  caller: Caller | null,
): Promise<Admission> {
  const found = findRoute(event.method, path)
  if (!found) return refuse(404, 'not-found', 'There is nothing at this address.')
  const { access, params } = found
  if (access === 'anyone') return { caller, powers: new Set() }
  if (!caller) return refuse(401, 'signed-out', 'Sign in to go on.')
  if (typeof access === 'string') return admitByRole(event, db, access, caller)
  if (access.by) await admitByRole(event, db, access.by, caller)
  const formId = await formOf(db, access.of, params.id ?? '')
  const powers = formId === null ? new Set<Power>() : await findPowers(db, caller.id, formId)
  if (powers.has(access.needs)) return { caller, powers }
  await recordRefusal(event, db, caller, formId, WORDS[access.needs])
  // Who may do nothing with a form isn't told that there is one.
  if (powers.size === 0) return refuse(404, 'not-found', NOTHING[access.of])
  return refuse(403, 'not-allowed', `You may not ${WORDS[access.needs]}. Ask one of its owners.`)
}

const NOTHING = {
  form: 'There is no such form, or it is not shared with you.',
  response: 'There is no such response.',
  file: 'There is no such file.',
  turn: 'There is no such turn.',
}

async function admitByRole(
  event: H3Event,
  db: Database,
  access: Extract<Access, string>,
  caller: Caller,
): Promise<Admission> {
  if (await isAdmittedByRole(db, access, caller)) return { caller, powers: new Set() }
  await recordRefusal(event, db, caller, null, access === 'admin' ? 'do what admins do' : 'make forms')
  const who = access === 'admin' ? 'admins' : 'those who make forms'
  return refuse(403, 'not-allowed', `Only ${who} may do this.`)
}

async function isAdmittedByRole(
  db: Database,
  access: Extract<Access, string>,
  { id, role }: Caller,
): Promise<boolean> {
  if (access === 'signedIn' || role === 'admin') return true
  if (access === 'admin') return false
  if (role === 'maker') return true
  const powers = access === 'designing' ? await listPowers(db, id) : new Map<string, Set<Power>>()
  return [...powers.values()].some(own => own.has('design'))
}

const recordRefusal = (
  event: H3Event,
  db: Database,
  { id, name }: Caller,
  formId: string | null,
  what: string,
) =>
  keepRecord(db, { id, name, source: sourceOf(event) }, 'refused', { form: formId ?? undefined, about: what })

/** The form that something belongs to; null when there is no such thing. */
async function formOf(db: Database, of: keyof typeof NOTHING, id: string): Promise<string | null> {
  if (!z.uuid().safeParse(id).success) return null
  if (of === 'form') return id
  const [found] = await FORM_OF[of](db, id)
  return found?.formId ?? null
}

/** How the form of something is found. */
const FORM_OF = {
  response: (db: Database, id: string) =>
    db
      .select({ formId: releases.formId })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(eq(responses.id, id)),
  file: (db: Database, id: string) =>
    db
      .select({ formId: releases.formId })
      .from(files)
      .innerJoin(releases, eq(files.releaseId, releases.id))
      .where(eq(files.id, id)),
  turn: (db: Database, id: string) =>
    db
      .select({ formId: releases.formId })
      .from(turns)
      .innerJoin(responses, eq(turns.responseId, responses.id))
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(eq(turns.id, id)),
}

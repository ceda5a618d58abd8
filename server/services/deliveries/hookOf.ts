import { randomBytes } from 'node:crypto'
import { eq } from 'drizzle-orm'
import type { DeliveryAct } from '../../../core/form/deliveries'
import { jsonFromTemplate } from '../../../core/parties/deliveries'
import type { Database } from '../../store/database'
import { hookKeys } from '../../store/schema'
import type { Doing } from './run'

type Hook = Extract<DeliveryAct, { do: 'hook' }>

/** By what the hooks of a form are signed; made when it is asked for first. */
export async function secretOf(db: Database, formId: string): Promise<string> {
  await db
    .insert(hookKeys)
    .values({ formId, secret: randomBytes(24).toString('base64url') })
    .onConflictDoNothing()
  const [row] = await db.select().from(hookKeys).where(eq(hookKeys.formId, formId))
  if (!row) throw new Error('The key of a form’s hooks was not kept.')
  return row.secret
}

/** What a hook sends: its template, or the answers as they are stored. */
export async function hookOf(
  db: Database,
  { filled, response, release }: Doing,
  { body }: Hook,
): Promise<{ body: string; secret: string }> {
  const { number, answers, sentAt, begunOn } = response
  const whole = {
    form: release.definition.code,
    version: release.number,
    ...{ response: response.id, number, begunOn, sentAt: sentAt.toISOString(), answers },
  }
  return {
    body: body === undefined ? JSON.stringify(whole) : jsonFromTemplate(filled, body),
    secret: await secretOf(db, release.formId),
  }
}

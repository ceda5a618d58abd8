import { eq } from 'drizzle-orm'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { releases, responses, users } from '../store/schema'
import { linkTo } from './deliveries/queue'
import { findPowers } from './people/rights'
import { keepEvent } from './responseEvents'

/** Writes a note to a response into its history, and tells colleagues of it who may see it. */
export async function noteResponse(
  db: Database,
  responseId: string,
  { text, tells }: { text: string; tells: readonly string[] },
  who: string,
): Promise<void> {
  await db.transaction(async tx => {
    const [found] = await tx
      .select({ number: responses.number, formId: releases.formId, form: releases.definition })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(eq(responses.id, responseId))
    if (!found) return refuse(404, 'not-found', 'There is no such response.')
    for (const address of tells) await refuseUnlessSeen(tx, found.formId, address)
    await keepEvent(tx, {
      responseId,
      kind: 'noted',
      turn: '',
      who,
      details: { remark: text, to: [...tells] },
    })
    const subject = `${found.form.title}: a note to response ${found.number}`
    const letter = `${who} wrote: “${text}” Open ${linkTo(found.formId, responseId)} to see the response.`
    await sendMail(
      tx,
      tells.map(to => ({ responseId, to, subject, text: letter })),
    )
  })
}

/** A note goes to nobody who may not see the response. */
async function refuseUnlessSeen(db: Database, formId: string, address: string): Promise<void> {
  const [person] = await db.select({ id: users.id }).from(users).where(eq(users.email, address))
  const powers = person ? await findPowers(db, person.id, formId) : new Set()
  if (!powers.has('responses'))
    refuse(422, 'not-a-reader', `${address} may not see the responses of this form, and was told nothing.`, [
      { path: 'tells', sentence: `${address} may not see the responses of this form.` },
    ])
}

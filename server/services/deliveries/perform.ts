import { and, eq, sql } from 'drizzle-orm'
import type { ATTACHED, Recipient } from '../../../core/form/deliveries'
import type { FormDocument } from '../../../core/form/documents'
import {
  addressesOf,
  copyOfAnswers,
  deliveredText,
  type DoneByItself,
} from '../../../core/parties/deliveries'
import { numberText, isNumber } from '../../../core/expressions/decimal'
import type { Filled } from '../../../core/fill/frame'
import { sendMail } from '../../stand-ins/mailer'
import type { Database } from '../../store/database'
import { forms, openings, responses, trays } from '../../store/schema'
import type { Attachment } from '../../../shared/api/letters'
import { filesOf } from '../filesOfResponses'
import { keepEvent } from '../responseEvents'
import { addressesOfTeams } from '../teamRows'
import { Refused } from '../../http/refuse'
import { documentsDue, makeDocument } from '../documents/documents'
import { pdfName } from '../documents/pdf'
import { queueDeliveries } from './queue'
import type { Doing, Outcome } from './run'

type InStore = Exclude<DoneByItself['act'], { do: 'hook' }>

/** Does what needs nobody outside of the store. */
export function performInStore(db: Database, doing: Doing & { act: InStore }): Promise<Outcome> {
  const { act } = doing
  switch (act.do) {
    case 'message':
      return postMessage(db, doing, act)
    case 'nextForm':
      return postNextForm(db, doing, act)
    case 'document':
      return keepDocument(db, doing, act.document)
    case 'tray':
      return moveIntoTray(db, doing, act.tray)
  }
}

async function keepDocument(db: Database, doing: Doing, document: FormDocument): Promise<Outcome> {
  try {
    const { name } = await makeDocument(db, doing, { ...doing, document, who: '' })
    return done(`Made: ${name}.`)
  } catch (error) {
    if (error instanceof Refused) return left(error.message)
    throw error
  }
}

const done = (said: string): Outcome => ({ is: 'done', said })
const left = (said: string): Outcome => ({ is: 'left', said })

async function recipients(db: Database, filled: Filled, to: Recipient): Promise<string[]> {
  const teams = 'team' in to ? await addressesOfTeams(db, [to.team]) : new Map<string, string[]>()
  return addressesOf(filled, to, teams)
}

async function postMessage(
  db: Database,
  doing: Doing,
  { to, subject, text, copy, attached = [] }: Extract<InStore, { do: 'message' }>,
): Promise<Outcome> {
  const { filled, response } = doing
  const addresses = await recipients(db, filled, to)
  if (addresses.length === 0) return left('There is no address to write to.')
  const said = deliveredText(filled, text)
  const whole = copy ? `${said}\n\n${copyOfAnswers(filled)}` : said
  const title = deliveredText(filled, subject).replaceAll(/\s+/g, ' ')
  const attachments = await attachmentsOf(db, doing, attached)
  await sendMail(
    db,
    addresses.map(address => ({
      responseId: response.id,
      to: address,
      subject: title,
      text: whole,
      attachments,
    })),
  )
  return done(`Written to ${addresses.join(', ')}.`)
}

async function attachmentsOf(
  db: Database,
  doing: Doing,
  attached: readonly (typeof ATTACHED)[number][],
): Promise<Attachment[]> {
  const { response, filled } = doing
  const copy = { name: `${filled.plan.form.code}-${response.number}.pdf`, file: null }
  const held = attached.includes('files') ? await filesOf(db, [response.id]) : []
  const files = held.map(({ id, name }) => ({ name, file: id }))
  const made = attached.includes('documents') ? await documentsDue(db, doing) : []
  const documents = made.map(({ id, name }) => ({ name: pdfName(name), file: null, document: id }))
  return [...(attached.includes('copy') ? [copy] : []), ...documents, ...files]
}

/** Posts a link to another form, with answers for its hidden questions. */
async function postNextForm(
  db: Database,
  { filled, response }: Doing,
  { form, to, text, carry = {} }: Extract<InStore, { do: 'nextForm' }>,
): Promise<Outcome> {
  const addresses = await recipients(db, filled, to)
  if (addresses.length === 0) return left('There is no address to write to.')
  const [next] = await db
    .select({ token: openings.token, title: forms.title })
    .from(forms)
    .innerJoin(openings, eq(openings.formId, forms.id))
    .where(sql`${forms.draft} ->> 'code' = ${form}`)
    .limit(1)
  if (!next) return { is: 'again', said: `There is no form “${form}” that takes responses.` }
  const carried = new URLSearchParams()
  for (const [into, from] of Object.entries(carry)) {
    const value = valueOf(filled, from)
    if (value !== null) carried.set(into, value)
  }
  const query = carried.toString()
  const link = `/f/${next.token}${query === '' ? '' : `?${query}`}`
  await sendMail(
    db,
    addresses.map(address => ({
      responseId: response.id,
      to: address,
      subject: next.title,
      text: `${deliveredText(filled, text)}\n\nOpen ${link} to go on.`,
    })),
  )
  return done(`The link to “${next.title}” went to ${addresses.join(', ')}.`)
}

function valueOf(filled: Filled, code: string): string | null {
  const question = filled.plan.byCode.get(code)
  const value = question ? (filled.values[question.slot] ?? null) : null
  if (isNumber(value)) return numberText(value)
  return typeof value === 'string' || typeof value === 'boolean' ? `${value}` : null
}

async function moveIntoTray(db: Database, doing: Doing, name: string): Promise<Outcome> {
  const { response, release, run } = doing
  const [tray] = await db
    .select()
    .from(trays)
    .where(and(eq(trays.formId, release.formId), sql`lower(${trays.name}) = lower(${name}::text)`))
  if (!tray) return { is: 'again', said: `There is no tray “${name}”.` }
  if (response.trayId === tray.id) return left(`It is in “${tray.name}” already.`)
  await db.update(responses).set({ trayId: tray.id }).where(eq(responses.id, response.id))
  const details = { remark: tray.name }
  await keepEvent(db, { responseId: response.id, kind: 'sorted', turn: '', who: '', details })
  await queueDeliveries(db, { response, release }, [{ event: 'tray', tray: tray.name }], run.depth + 1)
  return done(`Put into “${tray.name}”.`)
}

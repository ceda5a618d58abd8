import { and, eq, inArray } from 'drizzle-orm'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { sameAnswer, type Answers } from '../../core/form/answers'
import { personalCodes, withoutAnswers } from '../../core/form/personal'
import { chosenPeople, mergePeople, withKeptPeople } from '../../core/lists/people'
import type { Database } from '../store/database'
import {
  deliveryRuns,
  documents,
  files,
  messages,
  ownLinks,
  payments,
  responseEvents,
  responses,
  turnLinks,
  turns,
} from '../store/schema'
import type { ActedResponse, ResponseAct } from './actOnOne'
import { filesIn } from './files'
import { keepEvent } from './responseEvents'
import { loadVersions } from './versions'

/**
 * What takes the personal answers of a response out for good: those to questions that its own version or the newest one marks. With them go
 * their files, what stood there before, letters, links, who sent it, and the addresses among those answers wherever its turns and its history
 * name them. What colleagues have written stays.
 */
export async function personalStripper(
  db: Database,
  formId: string,
  who: string,
  reason: string,
): Promise<ResponseAct> {
  const definitions = await loadVersions(db, formId)
  const newest = definitions[0] ? personalCodes(definitions[0].form) : new Set<string>()
  return async (tx, { response, release }) => {
    if (response.binnedAt !== null) return 'It is in the bin.'
    if (response.turn !== null) return 'It is in progress: what is personal in it is still needed.'
    const form = withKeptPeople(release.definition, response.people)
    const own = definitions.find(d => d.number === release.number)
    const personal = personalCodes(form)
    for (const { place } of planOf(form).questions)
      if (newest.has(own?.newest(place.code) ?? place.code)) personal.add(place.code)
    const answers = withoutAnswers(form, response.answers, personal)
    if (response.strippedAt !== null && sameAnswer(answers, response.answers))
      return 'Nothing personal is left in it.'
    const gone = addressesIn(response.answers).filter(a => !addressesIn(answers).includes(a))
    await stripFiles(tx, response, release, personal)
    await stripAround(tx, response.id)
    await stripTurns(tx, response.id, gone)
    await stripHistory(tx, { response, release }, personal, gone)
    const people = chosenPeople(form, answers)
    await tx
      .update(responses)
      .set({
        ...{ answers, strippedAt: new Date(), userId: null, wayId: null, sendingDigest: null },
        people: response.people === null ? null : mergePeople({}, people),
      })
      .where(eq(responses.id, response.id))
    await keepEvent(tx, {
      ...{ responseId: response.id, kind: 'stripped', turn: '', who },
      details: { remark: reason },
    })
    return null
  }
}

/** Every address that stands in answers, in small letters. */
const addressesIn = (answers: Answers): string[] =>
  (JSON.stringify(answers).match(/[^\s",:{}[\]]+@[^\s",:{}[\]]+/g) ?? []).map(a => a.toLowerCase())

/** What is left of the files stands in a folder, which is swept of what nobody knows. */
async function stripFiles(
  db: Database,
  response: ActedResponse['response'],
  release: ActedResponse['release'],
  personal: ReadonlySet<string>,
): Promise<void> {
  const filled = fill(planOf(release.definition), response.answers, response.begunOn)
  const ids = filesIn(filled).flatMap(f => (personal.has(f.question) ? [f.id] : []))
  if (ids.length > 0)
    await db.delete(files).where(and(eq(files.responseId, response.id), inArray(files.id, ids)))
}

/** Letters hold answers, and links lead to them. */
async function stripAround(db: Database, responseId: string): Promise<void> {
  await db.delete(messages).where(eq(messages.responseId, responseId))
  await db.delete(documents).where(eq(documents.responseId, responseId))
  await db.update(payments).set({ title: '' }).where(eq(payments.responseId, responseId))
  await db.delete(ownLinks).where(eq(ownLinks.responseId, responseId))
  await db.update(deliveryRuns).set({ said: '' }).where(eq(deliveryRuns.responseId, responseId))
}

const without = (addresses: readonly string[], gone: readonly string[]): string[] =>
  addresses.filter(a => !gone.includes(a.toLowerCase()))

async function stripTurns(db: Database, responseId: string, gone: readonly string[]): Promise<void> {
  for (const turn of await db.select().from(turns).where(eq(turns.responseId, responseId))) {
    await db
      .update(turns)
      .set({ to: without(turn.to, gone), draft: null, draftBy: null })
      .where(eq(turns.id, turn.id))
    await db.delete(turnLinks).where(eq(turnLinks.turnId, turn.id))
  }
}

async function stripHistory(
  db: Database,
  { response, release }: ActedResponse,
  personal: ReadonlySet<string>,
  gone: readonly string[],
): Promise<void> {
  const events = await db.select().from(responseEvents).where(eq(responseEvents.responseId, response.id))
  for (const { id, who, details } of events) {
    const { before, to } = details
    const changed = {
      ...details,
      ...(before ? { before: withoutAnswers(release.definition, before, personal) } : {}),
      ...(to ? { to: without(to, gone) } : {}),
    }
    const isTheirs = gone.includes(who.toLowerCase())
    await db
      .update(responseEvents)
      .set({ details: changed, ...(isTheirs ? { who: '' } : {}) })
      .where(eq(responseEvents.id, id))
  }
}

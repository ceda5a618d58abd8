import { asc, eq } from 'drizzle-orm'
import type { ActedOn, ResponsesAct } from '../../shared/api/workbench'
import type { Power } from '../../shared/api/sharing'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { binResponse, deleteForGood, putBack } from './bin'
import { messageSender } from './messageSender'
import { trayMover } from './moveToTray'
import { ofForm } from './workbench'

/** A response that something is done with, with its release; kept for the transaction. */
export interface ActedResponse {
  response: typeof responses.$inferSelect
  release: typeof releases.$inferSelect
}
/** Does something with one response. @returns why it was not done; null where it was */
export type ResponseAct = (db: Database, one: ActedResponse) => Promise<string | null>

/** What each act needs besides seeing the responses. */
const NEEDS: Record<ResponsesAct['do'], Power> = {
  tray: 'responses',
  message: 'act',
  delete: 'own',
  'put back': 'own',
  'delete for good': 'own',
}

/** Does something with several responses of a form, each by itself: where one can’t be, the others are. */
export async function actOnResponses(
  db: Database,
  formId: string,
  { ids, act }: { ids: readonly string[]; act: ResponsesAct },
  { name, powers }: { name: string; powers: ReadonlySet<Power> },
): Promise<ActedOn> {
  if (!powers.has(NEEDS[act.do])) refuse(403, 'not-allowed', `You may not do this: ${SAID[act.do]}.`)
  const perform = await actFor(db, formId, act, name)
  const done: ActedOn = { done: 0, left: [] }
  for (const id of new Set(ids)) {
    const left = await db.transaction(tx => actOnOne(tx, formId, id, perform))
    if (left) done.left.push(left)
    else done.done += 1
  }
  return done
}

const SAID: Record<ResponsesAct['do'], string> = {
  tray: 'it needs the right to see the responses',
  message: 'it needs the right to act in turns',
  delete: 'only owners of the form delete its responses',
  'put back': 'only owners of the form put its responses back',
  'delete for good': 'only owners of the form delete its responses',
}

async function actOnOne(db: Database, formId: string, id: string, perform: ResponseAct) {
  // The release alone is not locked: others send to it meanwhile.
  const [one] = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(ofForm(db, formId, [id]))
    .orderBy(asc(responses.number))
    .for('update', { of: responses })
  if (!one) return { number: 0, sentence: 'It is not there any more.' }
  const sentence = await perform(db, one)
  return sentence === null ? null : { number: one.response.number, sentence }
}

function actFor(db: Database, formId: string, act: ResponsesAct, who: string): Promise<ResponseAct> {
  switch (act.do) {
    case 'tray':
      return trayMover(db, formId, act.tray, who)
    case 'message':
      return messageSender(db, formId, act, who)
    case 'delete':
      return Promise.resolve(binResponse(who, act.reason))
    case 'put back':
      return Promise.resolve(putBack(who))
    case 'delete for good':
      return Promise.resolve(deleteForGood)
  }
}

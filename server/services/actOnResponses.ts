import type { ActedOn, ResponsesAct } from '../../shared/api/workbench'
import type { Power } from '../../shared/api/sharing'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { actOnOne, type ResponseAct } from './actOnOne'
import { binResponse, deleteForGood, putBack } from './bin'
import { messageSender } from './messageSender'
import { trayMover } from './moveToTray'
import { personalStripper } from './stripPersonal'

/** What each act needs besides seeing the responses. */
const NEEDS: Record<ResponsesAct['do'], Power> = {
  tray: 'responses',
  message: 'act',
  delete: 'own',
  'put back': 'own',
  'delete for good': 'own',
  strip: 'own',
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
  strip: 'only owners of the form take personal answers out',
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
    case 'strip':
      return personalStripper(db, formId, who, act.reason)
  }
}

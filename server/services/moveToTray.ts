import { eq } from 'drizzle-orm'
import { sendMail } from '../stand-ins/mailer'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses } from '../store/schema'
import type { ResponseAct } from './actOnOne'
import { linkTo, queueDeliveries } from './deliveries/queue'
import { keepEvent } from './responseEvents'
import { listTrays } from './workbench'

/** What puts responses of a form into one of its trays, or into none, and tells whom the tray names. */
export async function trayMover(
  db: Database,
  formId: string,
  tray: string | null,
  who: string,
): Promise<ResponseAct> {
  const all = await listTrays(db, formId)
  const to = tray === null ? null : all.find(t => t.id === tray)
  if (to === undefined)
    return refuse(404, 'not-found', 'There is no such tray; somebody may have removed it.')
  return async (tx, { response, release }) => {
    if (response.binnedAt !== null) return 'It is in the bin.'
    if (response.trayId === tray) return null
    await tx.update(responses).set({ trayId: tray }).where(eq(responses.id, response.id))
    const remark = to?.name ?? ''
    await keepEvent(tx, { responseId: response.id, kind: 'sorted', turn: '', who, details: { remark } })
    const subject = `${release.definition.title}: response ${response.number} is in “${remark}”`
    const text = `${who || 'Tobbin'} put it there. Open ${linkTo(formId, response.id)} to see it.`
    const letters = (to?.tells ?? []).map(address => ({
      responseId: response.id,
      to: address,
      subject,
      text,
    }))
    await sendMail(tx, letters)
    if (to) await queueDeliveries(tx, { response, release }, [{ event: 'tray', tray: to.name }])
    return null
  }
}

import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { keepRecord } from '../../../services/people/record'
import { saveTrays } from '../../../services/workbench'

export default designerRoute(API.saveTrays, async ({ db, params, body, doer }) => {
  await saveTrays(db, params.id, body.trays)
  const about = body.trays.map(tray => tray.name).join(', ')
  await keepRecord(db, doer, 'trays changed', { form: params.id, about })
  return { done: true } as const
})

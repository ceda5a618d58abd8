import { API } from '../../../../../shared/api/endpoints'
import type { ResponsesAct } from '../../../../../shared/api/workbench'
import { designerRoute } from '../../../../http/route'
import { actOnResponses } from '../../../../services/actOnResponses'
import { type Act, keepRecord } from '../../../../services/people/record'

/** What of it stands in the record. */
const RECORDED: Partial<Record<ResponsesAct['do'], Act>> = {
  delete: 'responses deleted',
  'delete for good': 'responses deleted',
  'put back': 'responses put back',
  strip: 'personal answers taken out',
}

export default designerRoute(API.actOnResponses, async ({ db, params, body, designer, doer, powers }) => {
  const acted = await actOnResponses(db, params.id, body, { name: designer.name, powers })
  const recorded = RECORDED[body.act.do]
  const details = { responses: `${acted.done}`, how: body.act.do }
  if (recorded) await keepRecord(db, doer, recorded, { form: params.id, details })
  return acted
})

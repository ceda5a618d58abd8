import { API } from '../../../../../shared/api/endpoints'
import { refuseUnseen } from '../../../../http/seen'
import { designerRoute } from '../../../../http/route'
import { takeImport } from '../../../../services/importResponses'
import { keepRecord } from '../../../../services/people/record'

export default designerRoute(
  API.takeImport,
  async ({ db, params, body, powers, designer, doer }) => {
    refuseUnseen(powers)
    const taken = await takeImport(db, params.id, body, designer.name)
    const countOf = (what: string) => `${taken.rows.filter(row => row.is === what).length}`
    const details = { new: countOf('new'), changed: countOf('changed') }
    await keepRecord(db, doer, 'responses brought in', { form: params.id, details })
    return taken
  },
  { most: 8_000_000 },
)

import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { refuseUnseen } from '../../../http/seen'
import { loadCorrectable } from '../../../services/amendResponse'

export default designerRoute(API.loadCorrectable, ({ db, params, powers }) => {
  refuseUnseen(powers)
  return loadCorrectable(db, params.id)
})

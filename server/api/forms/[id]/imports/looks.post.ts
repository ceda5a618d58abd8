import { API } from '../../../../../shared/api/endpoints'
import { refuseUnseen } from '../../../../http/seen'
import { designerRoute } from '../../../../http/route'
import { weighImport } from '../../../../services/importResponses'

export default designerRoute(
  API.weighImport,
  ({ db, params, body, powers }) => {
    refuseUnseen(powers)
    return weighImport(db, params.id, body)
  },
  { most: 8_000_000 },
)

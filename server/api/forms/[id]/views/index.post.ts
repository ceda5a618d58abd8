import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepView } from '../../../../services/workbench'

export default designerRoute(API.keepView, ({ db, params, body, designer }) =>
  keepView(db, params.id, designer.id, body),
)

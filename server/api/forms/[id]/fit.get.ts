import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { weighStored } from '../../../services/storedFit'

export default designerRoute(API.weighStored, ({ db, params }) => weighStored(db, params.id))

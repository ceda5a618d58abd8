import { API } from '../../../shared/api/endpoints'
import { describeApi } from '../../../shared/api/openApi'
import { openRoute } from '../../http/route'

export default openRoute(API.describeApi, () => Promise.resolve(describeApi()))

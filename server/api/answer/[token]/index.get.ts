import { getRouterParam } from 'h3'
import { openRoute } from '../../../http/route'
import { pageOf } from '../../../services/turns'
import { database } from '../../../store/current'

export default openRoute(async event => pageOf(await database(), getRouterParam(event, 'token') ?? ''))

import { getRouterParam } from 'h3'
import { Returning } from '../../../../shared/api'
import { bodyOf, openRoute } from '../../../http/route'
import { giveBack } from '../../../services/turns'
import { database } from '../../../store/current'

export default openRoute(async event =>
  giveBack(
    await database(),
    getRouterParam(event, 'token') ?? '',
    (await bodyOf(event, Returning, 100_000)).remark,
  ),
)

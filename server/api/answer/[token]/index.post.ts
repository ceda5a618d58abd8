import { getRouterParam } from 'h3'
import { Sending } from '../../../../shared/api'
import { bodyOf, openRoute } from '../../../http/route'
import { LARGEST_SENDING, takeResponse } from '../../../services/answering'
import { database } from '../../../store/current'

export default openRoute(async event =>
  takeResponse(
    await database(),
    getRouterParam(event, 'token') ?? '',
    await bodyOf(event, Sending, LARGEST_SENDING),
  ),
)

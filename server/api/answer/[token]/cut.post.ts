import { getRouterParam } from 'h3'
import { Sending } from '../../../../shared/api'
import { bodyOf, openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/answering'
import { cutAgain } from '../../../services/turns'
import { database } from '../../../store/current'

export default openRoute(async event =>
  cutAgain(
    await database(),
    getRouterParam(event, 'token') ?? '',
    await bodyOf(event, Sending, LARGEST_SENDING),
  ),
)

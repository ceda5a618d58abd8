import { getRouterParam } from 'h3'
import { RowSearch } from '../../../../shared/api'
import { bodyOf, openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/answering'
import { findRows } from '../../../services/turns'
import { database } from '../../../store/current'

export default openRoute(async event =>
  findRows(
    await database(),
    getRouterParam(event, 'token') ?? '',
    await bodyOf(event, RowSearch, LARGEST_SENDING),
  ),
)

import { getQuery, getRouterParam, readRawBody } from 'h3'
import { LIMITS } from '../../../../core/form/limits'
import { GivenFile } from '../../../../shared/api'
import { openRoute, refuse, refuseLonger } from '../../../http/route'
import { takeFile } from '../../../services/files'
import { database } from '../../../store/current'

export default openRoute(async event => {
  const given = GivenFile.safeParse(getQuery(event))
  if (!given.success)
    return refuse(400, 'wrong-shape', 'A file is given with its question, its sending and its name.')
  refuseLonger(event, LIMITS.fileMegabytes * 1_000_000)
  const content = await readRawBody(event, false)
  return takeFile(
    await database(),
    getRouterParam(event, 'token') ?? '',
    given.data,
    content ?? new Uint8Array(),
  )
})

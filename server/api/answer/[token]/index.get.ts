import { getRouterParam } from 'h3'
import { openRoute } from '../../../http/route'
import { releaseByToken, todayText } from '../../../services/releases'
import { database } from '../../../store/current'

export default openRoute(async (event) => {
  const release = await releaseByToken(await database(), getRouterParam(event, 'token') ?? '')
  return { release: release.number, definition: release.definition, today: todayText() }
})

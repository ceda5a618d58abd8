import { getRouterParam } from 'h3'
import { designerRoute, idOf, refuse } from '../../../../http/route'
import { draftAt } from '../../../../services/drafts'
import { database } from '../../../../store/current'

export default designerRoute(async event => {
  const revision = Number(getRouterParam(event, 'revision'))
  if (!Number.isInteger(revision) || revision < 0) return refuse(404, 'not-found', 'There is no such state.')
  return draftAt(await database(), idOf(event), revision)
})

import { getRouterParam } from 'h3'
import { Code } from '../../../core/form/fields'
import { SaveShared } from '../../../shared/api'
import { bodyOf, designerRoute, refuse } from '../../http/route'
import { saveShared } from '../../services/sharedLists'
import { database } from '../../store/current'

export default designerRoute(async (event, designer) => {
  const { base, from, list } = await bodyOf(event, SaveShared)
  const code = Code.safeParse(getRouterParam(event, 'code'))
  if (!code.success) return refuse(400, 'wrong-code', 'A list’s code has small letters, digits and “_”.')
  return saveShared(await database(), designer, code.data, base, from, list)
})

import { getRouterParam } from 'h3'
import { designerRoute } from '../../http/route'
import { sharedList } from '../../services/sharedLists'
import { database } from '../../store/current'

export default designerRoute(async event => sharedList(await database(), getRouterParam(event, 'code') ?? ''))

import { getRouterParam } from 'h3'
import { Sending } from '../../../../shared/api'
import { bodyOf, openRoute } from '../../../http/route'
import { takeResponse } from '../../../services/answering'
import { database } from '../../../store/current'

/** Answers without their files: more than this no form of ours can ask for. */
const LARGEST_SENDING = 4_000_000

export default openRoute(async event => takeResponse(await database(), getRouterParam(event, 'token') ?? '', await bodyOf(event, Sending, LARGEST_SENDING)))

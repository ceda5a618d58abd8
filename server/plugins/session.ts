import { Designer } from '../../shared/api/session'
import { readCaller } from '../http/session'
import { database } from '../store/current'

/** What a browser is told of its session is what the store says of it now: a session that ended is none. */
export default defineNitroPlugin(() => {
  sessionHooks.hook('fetch', async (session, event) => {
    const caller = await readCaller(event, await database())
    if (caller) session.user = Designer.parse(caller)
    else delete session.user
  })
})

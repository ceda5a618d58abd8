import { getQuery } from 'h3'
import { z } from 'zod'
import { designerRoute, idOf, refuse } from '../../../http/route'
import { changesSince } from '../../../services/drafts'
import { database } from '../../../store/current'

const Since = z.object({ since: z.coerce.number().int().min(0) })

export default designerRoute(async (event, designer) => {
  const query = Since.safeParse(getQuery(event))
  if (!query.success) return refuse(400, 'wrong-shape', 'Changes are asked for since a revision.')
  const found = await changesSince(await database(), idOf(event), query.data.since)
  return found.map(({ userId, by, ...c }) => ({ ...c, by: by ?? 'somebody', own: userId === designer.id }))
})

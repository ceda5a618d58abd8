import { API } from '../../shared/api/endpoints'
import { refuse } from '../http/refuse'
import { designerRoute } from '../http/route'
import { listAccountMail } from '../stand-ins/mailer'

/** Only in the demonstration: elsewhere these letters are for those alone whom they are addressed to. */
export default designerRoute(API.loadPost, async ({ db }) => {
  if (useRuntimeConfig().demo === '')
    return refuse(404, 'not-found', 'The post is only shown in the demonstration.')
  const letters = await listAccountMail(db)
  return { letters: letters.map(l => ({ ...l, at: l.at.toISOString() })) }
})

import { getRequestProtocol, setCookie } from 'h3'
import { API } from '../../../../shared/api/endpoints'
import { passCookieOf } from '../../../http/linkUse'
import { refuse } from '../../../http/refuse'
import { openRoute } from '../../../http/route'
import { givePass } from '../../../services/admission'
import { findEntrance } from '../../../services/entrances'
import { countTry } from '../../../services/people/tallies'

/** As long as a browser keeps what was begun. */
const KEPT = 90 * 24 * 60 * 60

export default openRoute(API.enterPassphrase, async ({ db, event, params, body, doer }) => {
  await countTry(db, 'passphraseBySource', doer.source)
  await countTry(db, 'passphraseByLink', params.token)
  const entrance = await findEntrance(db, params.token)
  if (!entrance)
    return refuse(404, 'not-found', 'This link leads nowhere. Ask whoever sent it for a new one.')
  const pass = await givePass(entrance.passphraseHash, body.passphrase)
  const xForwardedProto = useRuntimeConfig().trustProxy !== ''
  const secure = getRequestProtocol(event, { xForwardedProto }) === 'https'
  setCookie(event, passCookieOf(entrance.formId), pass, {
    ...{ httpOnly: true, sameSite: 'lax', path: '/', maxAge: KEPT, secure },
  })
  return { done: true } as const
})

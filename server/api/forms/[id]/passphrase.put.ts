import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { savePassphrase } from '../../../services/admission'
import { ensureOpening } from '../../../services/openings'
import { hashPassword } from '../../../services/people/passwords'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.savePassphrase, async ({ db, params, body, doer }) => {
  const { passphrase } = body
  await ensureOpening(db, params.id)
  await savePassphrase(db, params.id, passphrase === null ? null : await hashPassword(passphrase))
  await keepRecord(db, doer, 'passphrase changed', { form: params.id })
  return { done: true } as const
})

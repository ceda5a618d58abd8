import { API } from '../../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../../http/route'
import { withdrawRelease } from '../../../../../services/openings'
import { keepRecord } from '../../../../../services/people/record'

export default designerRoute(API.withdrawRelease, async ({ db, params, body, doer }) => {
  await withdrawRelease(db, params.id, params.release, body.isWithdrawn)
  await keepRecord(db, doer, body.isWithdrawn ? 'version withdrawn' : 'version put back', {
    form: params.id,
    about: `Version ${params.release}`,
  })
  return { done: true } as const
})

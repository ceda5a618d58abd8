import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { saveRetention } from '../../../services/keptFor'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.saveRetention, async ({ db, params, body: { retention }, doer }) => {
  await saveRetention(db, params.id, retention)
  const about = retention ? `${retention.months} months, then ${retention.act}` : 'always'
  await keepRecord(db, doer, 'retention changed', { form: params.id, about })
  return { done: true } as const
})

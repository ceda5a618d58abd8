import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { findAboutPerson } from '../../services/aboutPerson'
import { keepRecord } from '../../services/people/record'

export default designerRoute(API.findAboutPerson, async ({ db, query, designer, doer }) => {
  const about = await findAboutPerson(db, designer, query.text)
  await keepRecord(db, doer, 'one person looked for', { details: { responses: `${about.found.length}` } })
  return about
})

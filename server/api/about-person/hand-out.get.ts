import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { sendFile } from '../../http/sendFile'
import { handOutAboutPerson } from '../../services/aboutPerson'
import { keepRecord } from '../../services/people/record'

export default designerRoute(API.handOutAboutPerson, async ({ db, event, query, designer, doer }) => {
  const { count, ...file } = await handOutAboutPerson(db, designer, query.text)
  await keepRecord(db, doer, 'one person handed out', { details: { responses: `${count}` } })
  return sendFile(event, file)
})

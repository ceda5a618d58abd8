import { designerRoute, idOf } from '../../../http/route'
import { formRow } from '../../../services/drafts'
import { responsesOf } from '../../../services/answering'
import { releasesOf } from '../../../services/releases'
import { database } from '../../../store/current'

export default designerRoute(async event => {
  const db = await database()
  const { id } = await formRow(db, idOf(event))
  const releases = await releasesOf(db, id)
  return {
    responses: await responsesOf(db, id),
    definitions: Object.fromEntries(releases.map(r => [r.number, r.definition])),
  }
})

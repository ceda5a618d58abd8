import { designerRoute, idOf } from '../../../http/route'
import { formRow } from '../../../services/drafts'
import { acceptancesOf, releasesOf } from '../../../services/releases'
import { responsesOf } from '../../../services/answering'
import { database } from '../../../store/current'

export default designerRoute(async event => {
  const db = await database()
  const row = await formRow(db, idOf(event))
  const [releases, responses] = [await releasesOf(db, row.id), await responsesOf(db, row.id)]
  return {
    id: row.id,
    draft: row.draft,
    revision: row.revision,
    savedAt: row.savedAt.toISOString(),
    releases: releases.map(({ definition, ...r }) => ({
      ...r,
      sameAsDraft: JSON.stringify(definition) === JSON.stringify(row.draft),
    })),
    responses: responses.length,
    accepted: await acceptancesOf(db, row.id),
  }
})

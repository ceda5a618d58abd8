import { LARGEST_TEMPLATE } from '../../../../../core/documents/docx/openDocx'
import { API } from '../../../../../shared/api/endpoints'
import { readBytes } from '../../../../http/readBody'
import { refuseLonger } from '../../../../http/readRequest'
import { designerRoute } from '../../../../http/route'
import { bringTemplate } from '../../../../services/documents/templates'

export default designerRoute(API.bringTemplate, async ({ db, event, params, query, designer }) => {
  refuseLonger(event, LARGEST_TEMPLATE)
  const bytes = await readBytes(event, LARGEST_TEMPLATE)
  return bringTemplate(db, params.id, { name: query.name, bytes, by: designer.id })
})

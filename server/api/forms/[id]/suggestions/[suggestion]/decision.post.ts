import { API } from '../../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../../http/route'
import { decideSuggestion } from '../../../../../services/decideSuggestion'

export default designerRoute(API.decideSuggestion, async ({ db, params, body, designer, powers }) => {
  const by = { id: designer.id, isDesigner: powers.has('design') }
  await decideSuggestion(db, params.id, params.suggestion, by, body)
  return { done: true } as const
})

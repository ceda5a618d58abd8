import { API } from '../../../../shared/api/endpoints'
import { linkUseOf, maskedSourceOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { countStep } from '../../../services/pageSteps'
import { countTry } from '../../../services/people/tallies'

export default openRoute(
  API.countStep,
  async ({ db, event, params, body, caller }) => {
    await countTry(db, 'stepsBySource', maskedSourceOf(event))
    return { isCounted: await countStep(db, linkUseOf(event, params.token, caller), body) }
  },
  { most: 1_000 },
)

import { API } from '../../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../../http/route'
import { countTry } from '../../../../../services/people/tallies'
import { checkProof } from '../../../../../services/releases'

export default designerRoute(API.checkProof, async ({ db, params, designer }) => {
  await countTry(db, 'proofByPerson', designer.id)
  return checkProof(db, params.id, params.release)
})

import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepRecord } from '../../../../services/people/record'
import { invitePeople } from '../../../../services/ways'

/** Some thousand names and addresses. */
const LARGEST_LIST = 2_000_000

export default designerRoute(
  API.invitePeople,
  async ({ db, params, body, doer }) => {
    const counted = await invitePeople(db, params.id, body)
    await keepRecord(db, doer, 'people asked', { form: params.id, about: String(counted.added) })
    return counted
  },
  { most: LARGEST_LIST },
)

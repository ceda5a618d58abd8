import { API } from '../../../../../shared/api/endpoints'
import { readPieces } from '../../../../http/readBody'
import { refuseLonger } from '../../../../http/readRequest'
import { linkUseOf, maskedSourceOf } from '../../../../http/linkUse'
import { openRoute } from '../../../../http/route'
import { takeFile } from '../../../../services/files'
import { countTry } from '../../../../services/people/tallies'
import { receiveFile } from '../../../../store/fileFolder'

export default openRoute(API.giveFile, async ({ db, event, params, query, caller }) => {
  await countTry(db, 'filesBySource', maskedSourceOf(event))
  return takeFile(db, linkUseOf(event, params.token, caller), query, most => {
    refuseLonger(event, most)
    return receiveFile(write => readPieces(event, most, write))
  })
})

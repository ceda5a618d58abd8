import type { Check } from '../inquiry'
import { alwaysOnceAnswered, alwaysShown } from './alwaysShown'
import { badPattern } from './badPattern'
import { backwardRoute } from './backwardRoute'
import { circle } from './circle'
import { duplicateCode } from './duplicateCode'
import { emptyList } from './emptyList'
import { emptySection } from './emptySection'
import { labelForCode } from './labelForCode'
import { laterName } from './laterName'
import { neverShown } from './neverShown'
import { promiseBroken } from './promiseBroken'
import { quoteError } from './quoteError'
import { syntaxError } from './syntaxError'
import { unknownClosing } from './unknownClosing'
import { unknownCode } from './unknownCode'
import { unknownFunction } from './unknownFunction'
import { unfilledQuestion } from './unfilledQuestion'
import { unknownParty } from './unknownParty'
import { unknownName } from './unknownName'
import { unreachableSection } from './unreachableSection'
import { wrongType } from './wrongType'

/** Every check, in the order in which they run: what can't be reached is known before what is always shown is asked. */
export const CHECKS: readonly Check[] = [
  syntaxError, unknownName, laterName, unknownFunction, wrongType, unknownCode, labelForCode,
  duplicateCode, emptySection, emptyList, backwardRoute, unknownClosing, quoteError, badPattern, unknownParty, unfilledQuestion, circle,
  unreachableSection, neverShown, alwaysShown, alwaysOnceAnswered, promiseBroken,
]

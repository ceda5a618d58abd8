import type { Check } from '../inquiry'
import { alwaysOnceAnswered, alwaysShown } from './alwaysShown'
import { badPattern } from './badPattern'
import { backwardRoute } from './backwardRoute'
import { circle } from './circle'
import { childlessParent } from './childlessParent'
import { deadEnd } from './deadEnd'
import { doubleLabel } from './doubleLabel'
import { duplicateRow } from './duplicateRow'
import { ignoredLevel } from './ignoredLevel'
import { orphanRow } from './orphanRow'
import { similarCodes } from './similarCodes'
import { unusedColumn } from './unusedColumn'
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
  duplicateRow, similarCodes, doubleLabel, orphanRow, childlessParent, unusedColumn, ignoredLevel,
  unreachableSection, neverShown, alwaysShown, alwaysOnceAnswered, deadEnd, promiseBroken,
]

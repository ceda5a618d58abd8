import { sortByNeeds } from './sortByNeeds'
import type { Check } from './check'
import { alwaysOnceAnswered, alwaysShown } from './alwaysShown'
import { backwardSkip, neverSkips } from './skipRules'
import { badPattern } from './badPattern'
import { backwardRoute } from './backwardRoute'
import { circle } from './circle'
import { childlessParent } from './childlessParent'
import { deadEnd } from './deadEnd'
import { mayRunOut } from './mayRunOut'
import { deliveryAddressBlank, deliveryAlways, deliveryNever } from './deliveryRules'
import { paymentAlways, paymentNever, paymentNoAmount, paymentOfNothing } from './paymentRules'
import { clauseAlways, clauseNever, documentNever, documentQuoteBlank } from './documentRules'
import { clauseBoth, clauseNeither } from './documentAlternatives'
import { documentTagLater, documentUnknownParty, documentUnseen } from './documentAccess'
import { documentSignerNever, documentSignersOrder, documentUnsigned } from './documentSigning'
import { documentWordsDiffer } from './documentWords'
import { documentTag, documentTorn, documentUnknownTurn } from './documentTags'
import { deliveryLeak, deliveryNoAddress, deliveryUnknownTurn } from './deliveryWiring'
import { doubleLabel } from './doubleLabel'
import { duplicateRow } from './duplicateRow'
import { ignoredLevel } from './ignoredLevel'
import { noAnswerFits } from './noAnswerFits'
import { orphanRow } from './orphanRow'
import { similarCodes } from './similarCodes'
import { shownToRefused } from './shownToRefused'
import { blankAsYes } from './blankAsYes'
import { noneWithOthers } from './noneWithOthers'
import { answersBetween } from './answersBetween'
import { askedBelow } from './askedBelow'
import { mixedAndOr } from './mixedAndOr'
import { defaultNotAllowed } from './defaultNotAllowed'
import { fitsAnotherChoice } from './fitsAnotherChoice'
import { lostRule } from './lostRule'
import { sumGoesBlank } from './sumGoesBlank'
import { totalGoesBlank } from './totalGoesBlank'
import { twinLeft } from './twinLeft'
import { singleBraces } from './singleBraces'
import { sameOptionLabel } from './sameOptionLabel'
import { unusedColumn } from './unusedColumn'
import { duplicateCode } from './duplicateCode'
import { emptyList } from './emptyList'
import { emptySection } from './emptySection'
import { labelForCode } from './labelForCode'
import { laterName } from './laterName'
import { contradictsOuter, neverShown } from './neverShown'
import { promiseBroken } from './promiseBroken'
import { givenTitle } from './givenTitle'
import { hiddenClosing } from './hiddenClosing'
import { entriesOnlyRead } from './entriesOnlyRead'
import { unseenNames } from './unseenNames'
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
import { defaultTriggers } from './defaultTriggers'
import { fallsThrough } from './fallsThrough'
import { neverHandedOff } from './handOffRules'
import { laterTurnAnswer } from './laterTurnAnswer'
import { leftOutOfRun } from './leftOutOfRun'
import { lockedQuestion } from './lockedQuestion'
import { neverOffered } from './neverOffered'
import { openAtOnce } from './openAtOnce'
import { openGate } from './openGate'
import { overlappingBranches } from './overlappingBranches'
import { foundByTrying } from './foundByTrying'
import { privateInference } from './privateInference'
import { standingBlank } from './standingBlank'
import { faintLook } from './faintLook'
import { quoteBlank } from './quoteBlank'
import { redundantPart } from './redundantPart'
import { alwaysRequired, neverRequired } from './requiredRules'
import { neverTaken, shadowedRoute } from './routeRules'
import { twinBranches } from './twinBranches'
import { uncoveredOption } from './uncoveredOption'
import { ungivenTurn } from './ungivenTurn'
import { unreachableFinish } from './unreachableFinish'
import { unreachableTurn } from './unreachableTurn'
import { idleValid, unmeetableValid } from './validRules'

/** Every check, in the order in which they run: each after those that it needs. */
export const CHECKS: readonly Check[] = sortByNeeds([
  syntaxError,
  unknownName,
  laterName,
  unknownFunction,
  wrongType,
  unknownCode,
  labelForCode,
  duplicateCode,
  emptySection,
  givenTitle,
  emptyList,
  backwardRoute,
  unknownClosing,
  hiddenClosing,
  entriesOnlyRead,
  unseenNames,
  quoteError,
  badPattern,
  unknownParty,
  unfilledQuestion,
  circle,
  duplicateRow,
  similarCodes,
  doubleLabel,
  orphanRow,
  childlessParent,
  unusedColumn,
  ignoredLevel,
  lockedQuestion,
  noAnswerFits,
  unreachableTurn,
  openAtOnce,
  laterTurnAnswer,
  privateInference,
  foundByTrying,
  backwardSkip,
  unreachableSection,
  neverShown,
  contradictsOuter,
  neverOffered,
  neverRequired,
  neverTaken,
  shadowedRoute,
  neverSkips,
  neverHandedOff,
  unmeetableValid,
  unreachableFinish,
  deadEnd,
  mayRunOut,
  promiseBroken,
  deliveryNoAddress,
  deliveryUnknownTurn,
  deliveryNever,
  deliveryAddressBlank,
  deliveryLeak,
  deliveryAlways,
  paymentNoAmount,
  paymentNever,
  paymentOfNothing,
  paymentAlways,
  documentTag,
  documentTorn,
  documentUnknownTurn,
  documentUnknownParty,
  documentUnseen,
  documentTagLater,
  documentUnsigned,
  documentSignersOrder,
  documentSignerNever,
  clauseBoth,
  clauseNeither,
  documentNever,
  clauseNever,
  clauseAlways,
  documentQuoteBlank,
  documentWordsDiffer,
  alwaysShown,
  alwaysRequired,
  idleValid,
  ungivenTurn,
  openGate,
  overlappingBranches,
  fallsThrough,
  alwaysOnceAnswered,
  redundantPart,
  defaultTriggers,
  uncoveredOption,
  twinBranches,
  leftOutOfRun,
  quoteBlank,
  standingBlank,
  faintLook,
  shownToRefused,
  blankAsYes,
  noneWithOthers,
  answersBetween,
  askedBelow,
  mixedAndOr,
  defaultNotAllowed,
  totalGoesBlank,
  sumGoesBlank,
  fitsAnotherChoice,
  lostRule,
  twinLeft,
  singleBraces,
  sameOptionLabel,
])

import { z } from 'zod'
import { dateTimeText, timeText } from '../expressions/dates'
import {
  ChoiceCode,
  checks,
  Code,
  Expression,
  IsoDate,
  keptFrom,
  Label,
  laidOut,
  Skip,
  Text,
  Under,
  When,
} from './fields'
import { LIMITS } from './limits'
import { Picture } from './look'
import { Messages } from './messages'

/** One choice of a question. `points` and `price` count in calculations; `alone` excludes the others of a multiple choice; `picture` is shown with it; `places`: so often it can be chosen, among all responses to the form. */
export const Option = z.strictObject({
  code: ChoiceCode,
  label: Label,
  points: z.number().optional(),
  price: z.number().optional(),
  shownWhen: Expression.optional(),
  alone: z.boolean().optional(),
  picture: Picture.shape.data.optional(),
  places: z.int().min(1).max(LIMITS.places).optional(),
})

/** Its answer tells of a person: it is what is taken out where a form keeps personal answers for some months only. */
const ofPerson = { personal: z.literal(true).optional() }

const asked = {
  kind: z.literal('question'),
  code: Code,
  label: Label,
  help: Text.optional(),
  placeholder: Label.optional(),
  shownWhen: Expression.optional(),
  required: When.optional(),
  /** Shown in place of “This needs an answer.” */
  requiredMessage: Text.optional(),
  messages: Messages.optional(),
  validWhen: checks,
  /** The answer that stands until somebody gives one: an expression, so a constant is written as one (`"wood"`, `12`). */
  default: Expression.optional(),
  /** While it holds, the answer is the default, or blank. */
  readOnly: When.optional(),
  skips: z.array(Skip).max(LIMITS.skips).optional(),
  under: Under.optional(),
  ...laidOut,
  ...keptFrom,
  ...ofPerson,
}
const Unit = z.string().max(40)
const lengths = {
  minLength: z.int().min(0).max(LIMITS.text).optional(),
  maxLength: z.int().min(1).max(LIMITS.text).optional(),
}
/** A regular expression (RE2 syntax) that the whole answer must match, and what is said when it does not. */
const patterns = { pattern: z.string().max(LIMITS.label).optional(), patternMessage: Text.optional() }
/** Where a choice takes its rows from, and which of them are offered. */
const chosen = {
  options: z.array(Option).max(LIMITS.options).optional(),
  list: Code.optional(),
  narrowedBy: Expression.optional(),
  writeIn: z.union([z.literal(true), Label]).optional(),
  /** The only row left on offer is chosen without being asked for. */
  onlyOne: z.literal(true).optional(),
}
const Clock = z.string().refine(text => timeText(text) !== null, 'a time is written 10:30')
const Moment = z
  .string()
  .refine(text => dateTimeText(text) !== null, 'a date and time is written 2026-05-01T10:30')
const Currency = z
  .string()
  .regex(/^[A-Z]{3}$/, 'a currency is written as three capital letters (ISO 4217), such as EUR')
const Numeric = z.number().optional()
/** Limits that are worked out, from earlier answers or the day: expressions of the question's own type, beside the fixed ones. */
const bounds = { atLeast: Expression.optional(), atMost: Expression.optional() }

/**
 * A list of the form that an answer is looked up in, by its codes, whatever letters are large or small: only those in it are taken, or all but
 * those. The list stays on the server; what is said of an answer that is not taken is the message.
 */
export const Table = z.strictObject({ list: Code, takes: z.enum(['these', 'others']), message: Text.min(1) })
const lookedUp = { table: Table.optional() }

/** What browsers know of the person in front of them (HTML, autofill detail tokens), and fill in where they are asked to. */
export const AUTOFILL = [
  'name',
  'given-name',
  'family-name',
  'organization',
  'street-address',
  'address-level2',
  'postal-code',
  'country-name',
  'bday',
] as const
/** Question types with what each adds to the common part. */
export const TextQuestion = z.strictObject({
  ...asked,
  type: z.literal('text'),
  ...lengths,
  ...patterns,
  ...lookedUp,
  autofill: z.enum(AUTOFILL).optional(),
})
/** `lines`: how high the field is; `rich`: lightly formatted, kept as CommonMark. */
export const LongTextQuestion = z.strictObject({
  ...asked,
  type: z.literal('longText'),
  ...lengths,
  lines: z.int().min(1).max(LIMITS.lines).optional(),
  rich: z.literal(true).optional(),
})
export const IntegerQuestion = z.strictObject({
  ...asked,
  ...bounds,
  type: z.literal('integer'),
  min: z.int().optional(),
  max: z.int().optional(),
  unit: Unit.optional(),
})
export const DecimalQuestion = z.strictObject({
  ...asked,
  ...bounds,
  type: z.literal('decimal'),
  decimals: z.int().min(0).max(10).optional(),
  min: Numeric,
  max: Numeric,
  unit: Unit.optional(),
})
const hasTwice = (codes: readonly string[]) => new Set(codes).size < codes.length
/** `currencies`: those that the respondent chooses from, `currency` among them; rules reach the amount in each, `price.EUR`, blank in the others. */
export const MoneyQuestion = z
  .strictObject({
    ...asked,
    ...bounds,
    type: z.literal('money'),
    currency: Currency,
    currencies: z.array(Currency).min(2).max(LIMITS.currencies).optional(),
    min: Numeric,
    max: Numeric,
  })
  .refine(q => q.currencies === undefined || (q.currencies.includes(q.currency) && !hasTwice(q.currencies)), {
    path: ['currencies'],
    message: 'the currencies are each named once, the one that is chosen at first among them',
  })
  .refine(q => q.currencies === undefined || (q.atLeast === undefined && q.atMost === undefined), {
    path: ['currencies'],
    message: 'limits as expressions are for amounts of one currency; a check can name the amount in each',
  })
export const YesNoQuestion = z.strictObject({ ...asked, type: z.literal('yesNo') })
export const ChoiceQuestion = z.strictObject({
  ...asked,
  type: z.literal('choice'),
  ...chosen,
  display: z.enum(['radios', 'buttons', 'dropDown', 'search']).optional(),
})
/** `writeIns`: how many own words may be written in; all of them count as one choice. */
export const ChoicesQuestion = z.strictObject({
  ...asked,
  type: z.literal('choices'),
  ...chosen,
  writeIns: z.int().min(2).max(LIMITS.writeIns).optional(),
  least: z.int().min(1).max(LIMITS.options).optional(),
  most: z.int().min(1).max(LIMITS.options).optional(),
  display: z.enum(['boxes', 'buttons', 'search']).optional(),
})
export const DateQuestion = z.strictObject({
  ...asked,
  ...bounds,
  type: z.literal('date'),
  min: IsoDate.optional(),
  max: IsoDate.optional(),
})
export const TimeQuestion = z.strictObject({
  ...asked,
  ...bounds,
  type: z.literal('time'),
  min: Clock.optional(),
  max: Clock.optional(),
})
export const DateTimeQuestion = z.strictObject({
  ...asked,
  ...bounds,
  type: z.literal('dateTime'),
  min: Moment.optional(),
  max: Moment.optional(),
})
export const EmailQuestion = z.strictObject({ ...asked, type: z.literal('email'), ...lookedUp })
export const PhoneQuestion = z.strictObject({ ...asked, type: z.literal('phone'), ...lookedUp })
export const UrlQuestion = z.strictObject({ ...asked, type: z.literal('url'), ...lookedUp })
/** That something does not apply: an answer, but none that counts; true, or in own words. */
const notApplicable = z.union([z.literal(true), Label]).optional()
/** `low`, `middle`, `high`: words for the ends and what lies between them. */
export const ScaleQuestion = z.strictObject({
  ...asked,
  type: z.literal('scale'),
  min: z.int().min(-10).max(10),
  max: z.int().min(-10).max(20),
  low: Label.optional(),
  middle: Label.optional(),
  high: Label.optional(),
  notApplicable,
})
/** Several rows answered on one scale, whose steps have their own words; required means every row. */
export const GridQuestion = z.strictObject({
  ...asked,
  type: z.literal('grid'),
  rows: z.array(z.strictObject({ code: Code, label: Label })).max(LIMITS.gridRows),
  options: z
    .array(z.strictObject({ code: ChoiceCode, label: Label, points: z.number().optional() }))
    .max(LIMITS.gridRows),
  notApplicable,
})
/** Options put into an order; with `most`, only the first so many. */
export const RankingQuestion = z.strictObject({
  ...asked,
  type: z.literal('ranking'),
  options: z.array(z.strictObject({ code: ChoiceCode, label: Label })).max(LIMITS.gridRows),
  most: z.int().min(1).max(LIMITS.gridRows).optional(),
})
export const FILE_KINDS = ['image', 'pdf', 'document', 'spreadsheet', 'text'] as const
/** Files with their allowed kinds (any of them without) and the most megabytes of one. */
export const FileQuestion = z.strictObject({
  ...asked,
  type: z.literal('file'),
  kinds: z.array(z.enum(FILE_KINDS)).min(1).max(FILE_KINDS.length).optional(),
  megabytes: z.number().positive().max(LIMITS.fileMegabytes).optional(),
  most: z.int().min(1).max(LIMITS.files).optional(),
})
export const SignatureQuestion = z.strictObject({ ...asked, type: z.literal('signature') })
/** Calculated and shown, never asked. `show: false` keeps it for rules and exports. */
export const ValueQuestion = z.strictObject({
  kind: z.literal('question'),
  code: Code,
  label: Label,
  help: Text.optional(),
  shownWhen: Expression.optional(),
  under: Under.optional(),
  ...laidOut,
  ...keptFrom,
  ...ofPerson,
  type: z.literal('value'),
  value: Expression,
  decimals: z.int().min(0).max(10).optional(),
  unit: Unit.optional(),
  currency: Currency.optional(),
  show: z.boolean().optional(),
})
/** Never shown; filled from the link (`?berth=12`, by `from` or its code) or by its default. */
export const HiddenQuestion = z.strictObject({
  kind: z.literal('question'),
  code: Code,
  label: Label,
  shownWhen: Expression.optional(),
  default: Expression.optional(),
  ...keptFrom,
  ...ofPerson,
  type: z.literal('hidden'),
  holds: z.enum(['text', 'number', 'yesNo', 'date']).optional(),
  from: z
    .string()
    .regex(/^[A-Za-z][\w-]{0,59}$/, 'a link parameter has letters, digits, “_” and “-”')
    .optional(),
})

/** Question types by name; the definition's one list of them. */
export const QUESTIONS = {
  text: TextQuestion,
  longText: LongTextQuestion,
  integer: IntegerQuestion,
  decimal: DecimalQuestion,
  money: MoneyQuestion,
  yesNo: YesNoQuestion,
  choice: ChoiceQuestion,
  choices: ChoicesQuestion,
  date: DateQuestion,
  time: TimeQuestion,
  dateTime: DateTimeQuestion,
  email: EmailQuestion,
  phone: PhoneQuestion,
  url: UrlQuestion,
  scale: ScaleQuestion,
  grid: GridQuestion,
  ranking: RankingQuestion,
  file: FileQuestion,
  signature: SignatureQuestion,
  value: ValueQuestion,
  hidden: HiddenQuestion,
} as const

/** The question types, in the order in which menus list them. */
export const QUESTION_TYPES = Object.keys(QUESTIONS).filter(isQuestionType)

/** Whether a word is the name of a question type. */
export function isQuestionType(name: string): name is keyof typeof QUESTIONS {
  return Object.hasOwn(QUESTIONS, name)
}

/** A question of any type, told apart by `type`. */
export const Question = z.discriminatedUnion('type', [
  TextQuestion,
  LongTextQuestion,
  IntegerQuestion,
  DecimalQuestion,
  MoneyQuestion,
  YesNoQuestion,
  ChoiceQuestion,
  ChoicesQuestion,
  DateQuestion,
  TimeQuestion,
  DateTimeQuestion,
  EmailQuestion,
  PhoneQuestion,
  UrlQuestion,
  ScaleQuestion,
  GridQuestion,
  RankingQuestion,
  FileQuestion,
  SignatureQuestion,
  ValueQuestion,
  HiddenQuestion,
])

export type Table = z.infer<typeof Table>
export type Option = z.infer<typeof Option>
export type Question = z.infer<typeof Question>
export type QuestionType = Question['type']
type QuestionMap = { [T in QuestionType]: z.infer<(typeof QUESTIONS)[T]> }
/** The question of one type; written so that a table by type and a question of that type stay correlated. */
export type QuestionOf<T extends QuestionType = QuestionType> = { [P in T]: QuestionMap[P] & { type: P } }[T]
/** The types whose answers are codes of offered rows. */
export type ChoiceType = 'choice' | 'choices'

/** Whether a question is answered with codes of offered rows. */
export const isChoice = (question: Question): question is QuestionOf<ChoiceType> =>
  question.type === 'choice' || question.type === 'choices'

/** The types with options that are written in the form. */
export type OptionType = ChoiceType | 'ranking' | 'grid'
export const hasOptions = (question: Question): question is QuestionOf<OptionType> =>
  isChoice(question) || question.type === 'ranking' || question.type === 'grid'

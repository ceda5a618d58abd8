import { z } from 'zod'
import type { Answer } from '../fill/answers'
import { dateTimeText, dayNumber, timeText } from '../expressions/dates'
import { KEYWORDS } from '../expressions/parse'

/** Bounds of a definition; what goes beyond them is refused with its path. */
export const LIMITS = {
  sections: 300,
  itemsInOnePlace: 2_000,
  questions: 10_000,
  depth: 10,
  lists: 500,
  rows: 100_000,
  options: 2_000,
  columns: 40,
  routes: 100,
  checks: 20,
  closings: 50,
  entries: 200,
  gridRows: 100,
  files: 20,
  fileMegabytes: 25,
  parties: 40,
  turns: 40,
  team: 50,
  promises: 500,
  walks: 1_000,
  code: 60,
  label: 500,
  text: 10_000,
  expression: 10_000,
  definitionBytes: 40_000_000,
} as const

/** A code: small letters, digits and `_`, beginning with a letter, no word of the expression language. */
export const Code = z
  .string()
  .max(LIMITS.code)
  .regex(/^[a-z][a-z0-9_]*$/, 'a code has small letters, digits and “_”, and begins with a letter')
  .refine(code => !KEYWORDS.has(code), 'this word belongs to the rule language; choose another code')
/** The code of a choice: what responses store; freer than a question's code, since it never stands bare in a rule. */
export const ChoiceCode = z.string().min(1).max(LIMITS.code)
const Label = z.string().max(LIMITS.label)
const Text = z.string().max(LIMITS.text)
/** A condition or calculation as FEEL text. A text with errors can be kept: the prover reports it. */
export const Expression = z.string().max(LIMITS.expression)
const IsoDate = z.string().refine(text => dayNumber(text) !== null, 'a date is written 2026-05-01')

/** One choice of a question. `points` and `price` count in calculations; `alone` excludes the others of a multiple choice. */
export const Option = z.strictObject({
  code: ChoiceCode,
  label: Label,
  points: z.number().optional(),
  price: z.number().optional(),
  shownWhen: Expression.optional(),
  alone: z.boolean().optional(),
})

/** A check of an answer: the rule must not be false; otherwise the message is shown. */
export const Check = z.strictObject({ rule: Expression, message: Text })
/** Always, or when a condition holds. */
const When = z.union([z.literal(true), Expression])
const checks = z.array(Check).max(LIMITS.checks).optional()
/** Right under which choice of an earlier question in the same place something stands; a matter of layout only. */
const Under = z.strictObject({ question: Code, option: ChoiceCode })

/** Whom a question is kept from: all parties but those marked as office; all but one party. Both keep it from a form's open link. */
const kept = { officeOnly: z.literal(true).optional(), privateTo: Code.optional() }

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
  validWhen: checks,
  /** The answer that stands until somebody gives one: an expression, so a constant is written as one (`"wood"`, `12`). */
  default: Expression.optional(),
  /** While it holds, the answer is the default, or blank. */
  readOnly: When.optional(),
  under: Under.optional(),
  ...kept,
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

/** Question types with what each adds to the common part. */
export const TextQuestion = z.strictObject({ ...asked, type: z.literal('text'), ...lengths, ...patterns })
export const LongTextQuestion = z.strictObject({ ...asked, type: z.literal('longText'), ...lengths })
export const IntegerQuestion = z.strictObject({
  ...asked,
  type: z.literal('integer'),
  min: z.int().optional(),
  max: z.int().optional(),
  unit: Unit.optional(),
})
export const DecimalQuestion = z.strictObject({
  ...asked,
  type: z.literal('decimal'),
  decimals: z.int().min(0).max(10).optional(),
  min: Numeric,
  max: Numeric,
  unit: Unit.optional(),
})
export const MoneyQuestion = z.strictObject({
  ...asked,
  type: z.literal('money'),
  currency: Currency,
  min: Numeric,
  max: Numeric,
})
export const YesNoQuestion = z.strictObject({ ...asked, type: z.literal('yesNo') })
export const ChoiceQuestion = z.strictObject({
  ...asked,
  type: z.literal('choice'),
  ...chosen,
  display: z.enum(['radios', 'buttons', 'dropDown', 'search']).optional(),
})
export const ChoicesQuestion = z.strictObject({
  ...asked,
  type: z.literal('choices'),
  ...chosen,
  least: z.int().min(1).max(LIMITS.options).optional(),
  most: z.int().min(1).max(LIMITS.options).optional(),
  display: z.enum(['boxes', 'buttons', 'search']).optional(),
})
export const DateQuestion = z.strictObject({
  ...asked,
  type: z.literal('date'),
  min: IsoDate.optional(),
  max: IsoDate.optional(),
})
export const TimeQuestion = z.strictObject({
  ...asked,
  type: z.literal('time'),
  min: Clock.optional(),
  max: Clock.optional(),
})
export const DateTimeQuestion = z.strictObject({
  ...asked,
  type: z.literal('dateTime'),
  min: Moment.optional(),
  max: Moment.optional(),
})
export const EmailQuestion = z.strictObject({ ...asked, type: z.literal('email') })
export const PhoneQuestion = z.strictObject({ ...asked, type: z.literal('phone') })
export const UrlQuestion = z.strictObject({ ...asked, type: z.literal('url') })
export const ScaleQuestion = z.strictObject({
  ...asked,
  type: z.literal('scale'),
  min: z.int().min(-10).max(10),
  max: z.int().min(-10).max(20),
  low: Label.optional(),
  high: Label.optional(),
})
/** Several rows answered on one scale; required means every row. */
export const GridQuestion = z.strictObject({
  ...asked,
  type: z.literal('grid'),
  rows: z.array(z.strictObject({ code: Code, label: Label })).max(LIMITS.gridRows),
  options: z
    .array(z.strictObject({ code: ChoiceCode, label: Label, points: z.number().optional() }))
    .max(LIMITS.gridRows),
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
  ...kept,
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
  ...kept,
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
/** Text shown among questions: plain, advice or a warning; may quote answers and be lightly formatted. */
export const Note = z.strictObject({
  kind: z.literal('note'),
  code: Code,
  text: Text,
  tone: z.enum(['plain', 'advice', 'warning']).optional(),
  shownWhen: Expression.optional(),
  under: Under.optional(),
})

/** How a repeating group repeats: the least and most entries, a heading for each that may quote its answers, and the words of the button. */
export const Repeat = z.strictObject({
  min: z.int().min(0).max(LIMITS.entries).optional(),
  max: z.int().min(1).max(LIMITS.entries).optional(),
  heading: Label.optional(),
  add: Label.optional(),
})

/** Questions kept together; groups nest, and may repeat. */
export interface Group {
  kind: 'group'
  code: string
  title: string
  shownWhen?: string | undefined
  validWhen?: { rule: string; message: string }[] | undefined
  readOnly?: true | string | undefined
  repeat?: z.infer<typeof Repeat> | undefined
  under?: { question: string; option: string } | undefined
  items: Item[]
}
export type Item = z.infer<typeof Question> | z.infer<typeof Note> | Group

export const Group = z.strictObject({
  kind: z.literal('group'),
  code: Code,
  title: Label,
  shownWhen: Expression.optional(),
  validWhen: checks,
  readOnly: When.optional(),
  repeat: Repeat.optional(),
  under: Under.optional(),
  get items(): z.ZodType<Item[]> {
    return z.array(Item).max(LIMITS.itemsInOnePlace)
  },
})

/** What stands in a section or group, told apart by `kind`. */
export const Item = z.discriminatedUnion('kind', [Question, Note, Group])

/** Where a section leads: a later section by code, or `finish`, with a closing of its own where one is named. Without `when` it always applies. */
export const Route = z.strictObject({
  when: Expression.optional(),
  to: z.string().max(LIMITS.code),
  closing: Code.optional(),
})
/** What is said after sending, and where the browser goes from there: the first whose condition is true. Texts may quote answers. */
export const Closing = z.strictObject({
  code: Code,
  when: Expression.optional(),
  title: Label.optional(),
  text: Text.optional(),
  forward: z
    .string()
    .max(LIMITS.label)
    .regex(/^(?:https?:\/\/|\/)/, 'an address begins with https:// or /')
    .optional(),
})
/** The destination of a route that ends the form. */
export const FINISH = 'finish'

/** A top-level part of a form. */
export const Section = z.strictObject({
  code: Code,
  title: Label,
  shownWhen: Expression.optional(),
  validWhen: checks,
  readOnly: When.optional(),
  items: z.array(Item).max(LIMITS.itemsInOnePlace),
  routes: z.array(Route).max(LIMITS.routes).optional(),
})

const Cell = z.union([Label, z.number(), z.boolean(), z.null()])
/** What a column holds. */
export const COLUMN_TYPES = ['text', 'number', 'yesNo', 'date'] as const
/** A column of a list: its code alone, or with what it is called and holds. */
export const Column = z.union([
  Code,
  z.strictObject({ code: Code, label: Label.optional(), type: z.enum(COLUMN_TYPES).optional() }),
])
/** Designers' own marks of rows; respondents never see them. */
export const MARKS = ['woad', 'weld', 'madder', 'verdigris'] as const
/** A row of a choice list: code, label, and a cell for any of the list's columns. Retired rows are kept for old responses, and no longer offered. */
export const Row = z
  .object({
    code: ChoiceCode,
    label: Label,
    retired: z.boolean().optional(),
    mark: z.enum(MARKS).optional(),
    remark: Text.optional(),
  })
  .catchall(Cell)
/** Names of cells that are no columns of their own. */
export const ROW_KEYS: ReadonlySet<string> = new Set(['code', 'label', 'retired', 'mark', 'remark'])
/** A choice list, shared by questions that name it. `shared`: the list of the workspace that it is kept the same as. `partial`: only some of so many rows are here. */
export const ChoiceList = z.strictObject({
  code: Code,
  title: Label.optional(),
  shared: Code.optional(),
  partial: z.int().min(0).optional(),
  columns: z.array(Column).max(LIMITS.columns).optional(),
  rows: z.array(Row).max(LIMITS.rows),
})

/** Somebody with a role in a response; `office` parties see what is office-only. */
export const Party = z.strictObject({ code: Code, name: Label, office: z.literal(true).optional() })
/** What a turn may do with a section, or with a single group or question in it. */
export const Access = z.enum(['fills', 'reads', 'never'])
const Address = z.email('an e-mail address is written name@wherry.example').max(200)
/** Who acts in a turn: anyone with the link, a named person, anyone of a team, or whoever an e-mail answer names. */
export const Actor = z.union([
  z.literal('link'),
  z.strictObject({ person: Address }),
  z.strictObject({ team: z.array(Address).min(1).max(LIMITS.team) }),
  z.strictObject({ answer: Code }),
])
/** Whose turn is next when a turn is handed off: a turn by code, or `done`. Without `when` it always applies. */
export const HandOff = z.strictObject({ when: Expression.optional(), to: z.string().max(LIMITS.code) })
/** Where a hand-off leads when nobody is to act any more. */
export const DONE = 'done'
/** A party's go at a response: who acts, what it fills and reads (sections by code, groups and questions where they differ; what is not named is `never`), and who is next. */
export const Turn = z.strictObject({
  code: Code,
  party: Code,
  title: Label.optional(),
  by: Actor,
  access: z.record(Code, Access),
  handOff: z.array(HandOff).max(LIMITS.routes).optional(),
})
/** A sentence that is to hold in every complete response; unknown counts as broken. */
export const Promised = z.strictObject({ code: Code, text: Label, holds: Expression })
/** An answer of any type in a file. */
const KeptAnswer: z.ZodType<Answer> = z.json()
/** A saved set of answers with the outcome expected: a test case of the form. `turns`: the order in which turns follow from them. */
export const Walk = z.strictObject({
  code: Code,
  title: Label,
  answers: z.record(Code, KeptAnswer),
  expect: z.strictObject({
    inPlay: z.array(Code).max(LIMITS.questions).optional(),
    notInPlay: z.array(Code).max(LIMITS.questions).optional(),
    required: z.array(Code).max(LIMITS.questions).optional(),
    wrong: z.array(Code).max(LIMITS.questions).optional(),
    values: z.record(Code, KeptAnswer).optional(),
    finishes: z.boolean().optional(),
    turns: z.array(Code).max(LIMITS.turns).optional(),
  }),
})

/** The definition of a form: what the store keeps, a release freezes and a `*.form.json` file holds. */
export const Form = z.strictObject({
  tobbin: z.literal(1),
  code: Code,
  title: Label,
  language: z.string().min(2).max(35).optional(),
  pace: z.enum(['section', 'question']).optional(),
  lists: z.array(ChoiceList).max(LIMITS.lists).optional(),
  sections: z.array(Section).max(LIMITS.sections),
  closings: z.array(Closing).max(LIMITS.closings).optional(),
  parties: z.array(Party).max(LIMITS.parties).optional(),
  turns: z.array(Turn).max(LIMITS.turns).optional(),
  promises: z.array(Promised).max(LIMITS.promises).optional(),
  walks: z.array(Walk).max(LIMITS.walks).optional(),
})

export type Form = z.infer<typeof Form>
export type Section = z.infer<typeof Section>
export type Question = z.infer<typeof Question>
export type QuestionType = Question['type']
type QuestionMap = { [T in QuestionType]: z.infer<(typeof QUESTIONS)[T]> }
/** The question of one type; written so that a table by type and a question of that type stay correlated. */
export type QuestionOf<T extends QuestionType = QuestionType> = { [P in T]: QuestionMap[P] & { type: P } }[T]
export type Note = z.infer<typeof Note>
/** The types whose answers are codes of offered rows. */
export type ChoiceType = 'choice' | 'choices'
export type Closing = z.infer<typeof Closing>
export type Route = z.infer<typeof Route>
export type Check = z.infer<typeof Check>
export type Option = z.infer<typeof Option>
export type Row = z.infer<typeof Row>
export type ChoiceList = z.infer<typeof ChoiceList>
export type ColumnKind = (typeof COLUMN_TYPES)[number]
export type Party = z.infer<typeof Party>
export type Access = z.infer<typeof Access>
export type Actor = z.infer<typeof Actor>
export type Turn = z.infer<typeof Turn>
export type Promised = z.infer<typeof Promised>
export type Walk = z.infer<typeof Walk>

/** An empty form with one empty section. */
export const emptyForm = (code: string, title: string): Form => ({
  tobbin: 1,
  code,
  title,
  language: 'en',
  sections: [{ code: 'section_1', title: 'First section', items: [] }],
})

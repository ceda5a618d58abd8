import { z } from 'zod'
import { dayNumber } from '../expressions/dates'
import { KEYWORDS } from '../expressions/parse'

/** Bounds of a definition; what goes beyond them is refused with its path. */
export const LIMITS = {
  sections: 300, itemsInOnePlace: 2_000, questions: 10_000, depth: 10, lists: 500, rows: 100_000, options: 2_000, columns: 40,
  routes: 100, checks: 20, code: 60, label: 500, text: 10_000, expression: 10_000, definitionBytes: 40_000_000,
} as const

/** A code: small letters, digits and `_`, beginning with a letter, no word of the expression language. */
export const Code = z.string().max(LIMITS.code)
  .regex(/^[a-z][a-z0-9_]*$/, 'a code has small letters, digits and “_”, and begins with a letter')
  .refine(code => !KEYWORDS.has(code), 'this word belongs to the rule language; choose another code')
/** The code of a choice: what responses store; freer than a question's code, since it never stands bare in a rule. */
export const ChoiceCode = z.string().min(1).max(LIMITS.code)
const Label = z.string().max(LIMITS.label)
const Text = z.string().max(LIMITS.text)
/** A condition or calculation as FEEL text. A text with errors can be kept: the prover reports it. */
export const Expression = z.string().max(LIMITS.expression)
const IsoDate = z.string().refine(text => dayNumber(text) !== null, 'a date is written 2026-05-01')

/** One choice of a question, or one row of a choice list without further columns. */
export const Option = z.strictObject({ code: ChoiceCode, label: Label })

/** A check of an answer: the rule must not be false; otherwise the message is shown. */
export const Check = z.strictObject({ rule: Expression, message: Text })

const asked = {
  kind: z.literal('question'),
  code: Code,
  label: Label,
  help: Text.optional(),
  placeholder: Label.optional(),
  shownWhen: Expression.optional(),
  required: z.union([z.literal(true), Expression]).optional(),
  validWhen: z.array(Check).max(LIMITS.checks).optional(),
}
const Unit = z.string().max(40)

/** Question types with what each adds to the common part. */
export const TextQuestion = z.strictObject({ ...asked, type: z.literal('text'), minLength: z.int().min(0).max(LIMITS.text).optional(), maxLength: z.int().min(1).max(LIMITS.text).optional() })
export const IntegerQuestion = z.strictObject({ ...asked, type: z.literal('integer'), min: z.int().optional(), max: z.int().optional(), unit: Unit.optional() })
export const DecimalQuestion = z.strictObject({ ...asked, type: z.literal('decimal'), decimals: z.int().min(0).max(10).optional(), min: z.number().optional(), max: z.number().optional(), unit: Unit.optional() })
export const YesNoQuestion = z.strictObject({ ...asked, type: z.literal('yesNo') })
export const ChoiceQuestion = z.strictObject({ ...asked, type: z.literal('choice'), options: z.array(Option).max(LIMITS.options).optional(), list: Code.optional() })
export const DateQuestion = z.strictObject({ ...asked, type: z.literal('date'), min: IsoDate.optional(), max: IsoDate.optional() })

/** A question of any type, told apart by `type`. */
export const Question = z.discriminatedUnion('type', [TextQuestion, IntegerQuestion, DecimalQuestion, YesNoQuestion, ChoiceQuestion, DateQuestion])
/** Text shown among questions. */
export const Note = z.strictObject({ kind: z.literal('note'), code: Code, text: Text, shownWhen: Expression.optional() })

/** Questions kept together; groups nest. */
export interface Group {
  kind: 'group'
  code: string
  title: string
  shownWhen?: string | undefined
  items: Item[]
}
export type Item = z.infer<typeof Question> | z.infer<typeof Note> | Group

export const Group = z.strictObject({
  kind: z.literal('group'),
  code: Code,
  title: Label,
  shownWhen: Expression.optional(),
  get items(): z.ZodType<Item[]> { return z.array(Item).max(LIMITS.itemsInOnePlace) },
})

/** What stands in a section or group, told apart by `kind`. */
export const Item = z.discriminatedUnion('kind', [Question, Note, Group])

/** Where a section leads: a later section by code, or `finish`. Without `when` it always applies. */
export const Route = z.strictObject({ when: Expression.optional(), to: z.string().max(LIMITS.code) })
/** The destination of a route that ends the form. */
export const FINISH = 'finish'

/** A top-level part of a form. */
export const Section = z.strictObject({
  code: Code,
  title: Label,
  shownWhen: Expression.optional(),
  items: z.array(Item).max(LIMITS.itemsInOnePlace),
  routes: z.array(Route).max(LIMITS.routes).optional(),
})

const Cell = z.union([Label, z.number(), z.boolean(), z.null()])
/** A row of a choice list: code, label, and a cell for any of the list's columns. */
export const Row = z.object({ code: ChoiceCode, label: Label, retired: z.boolean().optional() }).catchall(Cell)
/** A choice list, shared by questions that name it. */
export const ChoiceList = z.strictObject({
  code: Code,
  columns: z.array(Code).max(LIMITS.columns).optional(),
  rows: z.array(Row).max(LIMITS.rows),
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
})

export type Form = z.infer<typeof Form>
export type Section = z.infer<typeof Section>
export type Question = z.infer<typeof Question>
export type QuestionType = Question['type']
interface QuestionMap {
  text: z.infer<typeof TextQuestion>
  integer: z.infer<typeof IntegerQuestion>
  decimal: z.infer<typeof DecimalQuestion>
  yesNo: z.infer<typeof YesNoQuestion>
  choice: z.infer<typeof ChoiceQuestion>
  date: z.infer<typeof DateQuestion>
}
/** The question of one type; written so that a table by type and a question of that type stay correlated. */
export type QuestionOf<T extends QuestionType = QuestionType> = { [P in T]: QuestionMap[P] & { type: P } }[T]
export type Note = z.infer<typeof Note>
export type Route = z.infer<typeof Route>
export type Check = z.infer<typeof Check>
export type Option = z.infer<typeof Option>
export type Row = z.infer<typeof Row>
export type ChoiceList = z.infer<typeof ChoiceList>

/** An empty form with one empty section. */
export const emptyForm = (code: string, title: string): Form => ({
  tobbin: 1, code, title, language: 'en', sections: [{ code: 'section_1', title: 'First section', items: [] }],
})

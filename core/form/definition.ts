import { GIVEN_TITLES } from './givenTitles'
import { z } from 'zod'
import type { Answer } from './answers'
import { ChoiceList } from './choiceLists'
import { Delivery } from './deliveries'
import { FormDocument } from './documents'
import { checks, Code, Expression, Label, laidOut, Text, Under, When } from './fields'
import { FORWARD } from './finish'
import { Look } from './look'
import { LIMITS } from './limits'
import { FormMessages } from './messages'
import { Payment } from './payment'
import { Question } from './questions'
import { Party, Turn } from './turns'

/** Text shown among questions: plain, advice or a warning; may quote answers and be lightly formatted. */
export const Note = z.strictObject({
  kind: z.literal('note'),
  code: Code,
  text: Text,
  tone: z.enum(['plain', 'advice', 'warning']).optional(),
  shownWhen: Expression.optional(),
  under: Under.optional(),
  ...laidOut,
})

/** How a repeating group repeats: the least and most entries, a heading for each that may quote its answers, and the words of the button. */
export const Repeat = z.strictObject({
  min: z.int().min(0).max(LIMITS.entries).optional(),
  max: z.int().min(1).max(LIMITS.entries).optional(),
  heading: Label.optional(),
  add: Label.optional(),
})

/** Questions kept together; groups nest, and may repeat. `columns`: what stands in it is laid out side by side, where there is room. */
export interface Group {
  kind: 'group'
  code: string
  title: string
  shownWhen?: string | undefined
  validWhen?: { rule: string; message: string }[] | undefined
  readOnly?: true | string | undefined
  repeat?: z.infer<typeof Repeat> | undefined
  under?: { question: string; option: string } | undefined
  columns?: number | undefined
  span?: number | undefined
  indent?: true | undefined
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
  columns: z.int().min(2).max(LIMITS.sideBySide).optional(),
  ...laidOut,
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
  forward: z.string().max(LIMITS.label).regex(FORWARD, 'an address begins with https:// or /').optional(),
})

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

/** The version of the format that is written; older ones are read through `upgrade.ts`. */
export const FORMAT_VERSION = 2

/** The definition of a form: what the store keeps, a release freezes and a `*.form.json` file holds. */
export const Form = z.strictObject({
  tobbin: z.literal(FORMAT_VERSION),
  code: Code,
  title: Label,
  language: z.string().min(2).max(35).optional(),
  pace: z.enum(['section', 'question']).optional(),
  look: Look.optional(),
  messages: FormMessages.optional(),
  lists: z.array(ChoiceList).max(LIMITS.lists).optional(),
  sections: z.array(Section).max(LIMITS.sections),
  closings: z.array(Closing).max(LIMITS.closings).optional(),
  parties: z.array(Party).max(LIMITS.parties).optional(),
  turns: z.array(Turn).max(LIMITS.turns).optional(),
  deliveries: z.array(Delivery).max(LIMITS.deliveries).optional(),
  payment: Payment.optional(),
  documents: z.array(FormDocument).max(LIMITS.documents).optional(),
  promises: z.array(Promised).max(LIMITS.promises).optional(),
  walks: z.array(Walk).max(LIMITS.walks).optional(),
})

export type Form = z.infer<typeof Form>
export type Section = z.infer<typeof Section>
export type Note = z.infer<typeof Note>
export type Closing = z.infer<typeof Closing>
export type Route = z.infer<typeof Route>
export type Promised = z.infer<typeof Promised>
export type Walk = z.infer<typeof Walk>

/** An empty form with one empty section. */
export const emptyForm = (code: string, title: string): Form => ({
  tobbin: FORMAT_VERSION,
  code,
  title,
  language: 'en',
  sections: [{ code: 'section_1', title: GIVEN_TITLES.first, items: [] }],
})

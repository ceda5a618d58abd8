import { defineAsyncComponent, type Component } from 'vue'
import type { Question, QuestionOf, QuestionType } from '#core/form/questions'
import WidgetNumber from './WidgetNumber.vue'
import WidgetOptions from './WidgetOptions.vue'
import WidgetText from './WidgetText.vue'
import WidgetTime from './WidgetTime.vue'
import WidgetValue from './WidgetValue.vue'

// What not every form has comes when a form has it.
const WidgetDropDown = defineAsyncComponent(() => import('./WidgetDropDown.vue'))
const WidgetFile = defineAsyncComponent(() => import('./WidgetFile.vue'))
const WidgetGrid = defineAsyncComponent(() => import('./WidgetGrid.vue'))
const WidgetLongText = defineAsyncComponent(() => import('./WidgetLongText.vue'))
const WidgetRanking = defineAsyncComponent(() => import('./WidgetRanking.vue'))
const WidgetRichText = defineAsyncComponent(() => import('./WidgetRichText.vue'))
const WidgetScale = defineAsyncComponent(() => import('./WidgetScale.vue'))
const WidgetSearch = defineAsyncComponent(() => import('./WidgetSearch.vue'))
const WidgetSignature = defineAsyncComponent(() => import('./WidgetSignature.vue'))

/** Up to so many choices stand open; more become a list. */
const MOST_OPEN = 8
const LONG_LIST = 40

/** `group`: the widget is a group of controls, labelled as a field set. */
interface Entry {
  component: Component
  group: boolean
}
const field = (component: Component): Entry => ({ component, group: false })
const group = (component: Component): Entry => ({ component, group: true })

const CHOICE_WIDGETS = {
  buttons: group(WidgetOptions),
  radios: group(WidgetOptions),
  dropDown: field(WidgetDropDown),
  search: field(WidgetSearch),
} as const
/** How so many choices are shown where the form does not say. */
function usualDisplay(rows: number): keyof typeof CHOICE_WIDGETS {
  if (rows <= MOST_OPEN) return 'radios'
  return rows <= LONG_LIST ? 'dropDown' : 'search'
}

/** The widget of each question type; a new type is a new entry. */
const WIDGETS: { readonly [T in QuestionType]: (question: QuestionOf<T>, rows: number) => Entry | null } = {
  text: () => field(WidgetText),
  email: () => field(WidgetText),
  phone: () => field(WidgetText),
  url: () => field(WidgetText),
  longText: ({ rich }) => (rich ? group(WidgetRichText) : field(WidgetLongText)),
  integer: () => field(WidgetNumber),
  decimal: () => field(WidgetNumber),
  money: () => field(WidgetNumber),
  date: () => field(WidgetTime),
  time: () => field(WidgetTime),
  dateTime: () => field(WidgetTime),
  yesNo: () => group(WidgetOptions),
  choice: ({ display }, rows) => CHOICE_WIDGETS[display ?? usualDisplay(rows)],
  choices: ({ display }, rows) =>
    display === 'search' || (display === undefined && rows > LONG_LIST)
      ? field(WidgetSearch)
      : group(WidgetOptions),
  scale: () => group(WidgetScale),
  grid: () => group(WidgetGrid),
  ranking: () => group(WidgetRanking),
  file: () => field(WidgetFile),
  signature: () => group(WidgetSignature),
  value: () => group(WidgetValue),
  hidden: () => null,
}

const entryOf = <T extends QuestionType>(question: QuestionOf<T>, rows: number): Entry | null =>
  WIDGETS[question.type](question, rows)
/** The widget for a question; null where nothing is shown. */
export const widgetFor = (question: Question, rows: number): Entry | null =>
  question.type === 'value' && question.show === false ? null : entryOf(question, rows)
export const LOCKED: Entry = group(WidgetValue)

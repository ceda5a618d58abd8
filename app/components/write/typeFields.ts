import { FILE_KINDS, type AUTOFILL, type QuestionType } from '#core/form/questions'

/** A property of a question as a field of its row: its words, and how it is entered. */
export interface TypeField {
  key: string
  words: string
  as: 'number' | 'text' | 'date' | 'time' | 'dateTime' | 'tick' | 'choice' | 'many'
  choices?: readonly { value: string; words: string }[]
  /** Sits on a line of its own. */
  wide?: boolean
}

const number = (key: string, words: string): TypeField => ({ key, words, as: 'number' })
const text = (key: string, words: string, wide = false): TypeField => ({ key, words, as: 'text', wide })
const range = [number('min', 'least'), number('max', 'most')]
const unit = text('unit', 'unit')
const letters = [number('minLength', 'least letters'), number('maxLength', 'most letters')]
const choice = (key: string, words: string, choices: Record<string, string>): TypeField => ({
  key,
  words,
  as: 'choice',
  choices: Object.entries(choices).map(([value, w]) => ({ value, words: w })),
})

const doesNotApply: TypeField = { key: 'notApplicable', words: 'with “doesn’t apply”', as: 'tick' }

const lightly: TypeField = { key: 'rich', words: 'lightly formatted', as: 'tick' }

/** What each type has beyond the common part, in the order in which the row shows it; a new type is a new entry. */
export const TYPE_FIELDS: Readonly<Record<QuestionType, readonly TypeField[]>> = {
  text: [
    ...letters,
    choice('autofill', 'filled in by the browser', {
      name: 'name',
      'given-name': 'first name',
      'family-name': 'last name',
      organization: 'company, club',
      'street-address': 'street and number',
      'address-level2': 'town',
      'postal-code': 'post code',
      'country-name': 'country',
      bday: 'day of birth',
    } satisfies Record<(typeof AUTOFILL)[number], string>),
  ],
  longText: [...letters, number('lines', 'lines high'), lightly],
  email: [],
  phone: [],
  url: [],
  yesNo: [],
  signature: [],
  ranking: [number('most', 'how many are ranked')],
  integer: [...range, unit],
  decimal: [...range, number('decimals', 'digits after the point'), unit],
  money: [text('currency', 'currency'), text('currencies', 'or one of'), ...range],
  choice: [
    choice('display', 'shown as', {
      radios: 'radio buttons',
      buttons: 'buttons',
      dropDown: 'drop-down',
      search: 'searchable list',
    }),
    { key: 'writeIn', words: 'with “other, please say”', as: 'tick' },
  ],
  choices: [
    choice('display', 'shown as', { boxes: 'boxes to tick', buttons: 'buttons', search: 'searchable list' }),
    number('least', 'at least'),
    number('most', 'at most'),
    { key: 'writeIn', words: 'with “other, please say”', as: 'tick' },
    number('writeIns', 'so many of one’s own'),
  ],
  date: [
    { key: 'min', words: 'first day', as: 'date' },
    { key: 'max', words: 'last day', as: 'date' },
  ],
  time: [
    { key: 'min', words: 'from', as: 'time' },
    { key: 'max', words: 'to', as: 'time' },
  ],
  dateTime: [
    { key: 'min', words: 'from', as: 'dateTime' },
    { key: 'max', words: 'to', as: 'dateTime' },
  ],
  scale: [
    ...range,
    text('low', 'words at the low end'),
    text('middle', 'in the middle'),
    text('high', 'words at the high end'),
    doesNotApply,
  ],
  grid: [doesNotApply],
  file: [
    { key: 'kinds', words: 'kinds', as: 'many', choices: FILE_KINDS.map(k => ({ value: k, words: k })) },
    number('megabytes', 'most megabytes'),
    number('most', 'most files'),
  ],
  value: [number('decimals', 'digits after the point'), text('currency', 'currency'), unit],
  hidden: [
    choice('holds', 'holds', { text: 'text', number: 'number', yesNo: 'yes / no', date: 'date' }),
    text('from', 'link parameter'),
  ],
}

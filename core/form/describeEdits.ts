import type { Form } from './definition'
import { applyEdit, locate, type Edit } from './edits'
import { listPlaces, placeName, type Place } from './walk'

/** What edits do to one thing of a form, in words for people. */
export interface EditLine {
  act: 'added' | 'deleted' | 'moved' | 'changed'
  /** The thing by its number and name, or what of the form it is. */
  name: string
  /** Where it stands in the form as it is; null for what is not there yet, and for the form and its lists. */
  address: Place['address'] | null
  /** Under what it is put, by name; empty where that says nothing. */
  where: string
  parts: EditPart[]
}

/** A property that is changed: its name in words, and its value before and after; empty for none. */
export interface EditPart {
  /** The property as the definition file calls it. */
  key: string
  words: string
  before: string
  after: string
}

/** So long may a value be that is shown whole. */
const MOST_LETTERS = 300

/**
 * What edits, made one after the other, do to a form: a line for each thing, with what is changed of it.
 * @throws EditError when they can't be made
 */
export function describeEdits(form: Form, edits: readonly Edit[]): EditLine[] {
  const before = new Map(listPlaces(form).map(p => [p.address as string, p]))
  const lines: EditLine[] = []
  let touched = ''
  for (const edit of edits) {
    const { form: next, inverse } = applyEdit(form, edit)
    const line = describeEdit(form, next, edit, inverse)
    const last = lines.at(-1)
    const isSame = last?.act === 'changed' && line.act === 'changed' && addressOf(edit) === touched
    if (last && isSame) last.parts.push(...line.parts)
    else lines.push({ ...line, address: before.get(addressOf(edit))?.address ?? null })
    // Under another code from then on, where the edit gives one.
    touched = addressOf(inverse)
    form = next
  }
  return lines
}

const addressOf = (edit: Edit): string => ('what' in edit ? edit.what : '')

function describeEdit(form: Form, next: Form, edit: Edit, inverse: Edit): EditLine {
  const plain = { address: null, where: '', parts: [] }
  switch (edit.do) {
    case 'replace':
      return { ...plain, act: 'changed', name: 'The whole form' }
    case 'insert': {
      const address = addressOf(inverse)
      return { ...plain, act: 'added', name: nameAt(next, address), where: nameAt(form, edit.into) }
    }
    case 'remove':
      return { ...plain, act: 'deleted', name: nameAt(form, edit.what) }
    case 'move':
      return { ...plain, act: 'moved', name: nameAt(form, edit.what), where: nameAt(form, edit.into) }
    case 'splice': {
      const parts = [partOf('rows', inverse.do === 'splice' ? inverse.rows : [], edit.rows)]
      return { ...plain, act: 'changed', name: nameAt(form, edit.what), parts }
    }
    case 'change': {
      const old = inverse.do === 'change' ? inverse.set : {}
      const parts = Object.entries(edit.set).map(([key, value]) => partOf(key, old[key], value))
      return { ...plain, act: 'changed', name: nameAt(form, edit.what), parts }
    }
  }
}

/** A property with its values in words; where these say the same of both, as the definition file has them. */
function partOf(key: string, old: unknown, value: unknown): EditPart {
  const [before, after] = [valueText(old, key), valueText(value, key)]
  const words = wordsOf(key)
  return before === after
    ? { key, words, before: shortened(JSON.stringify(old ?? null)), after: shortened(JSON.stringify(value)) }
    : { key, words, before, after }
}

/** What stands at an address, by number and name; empty for the whole. */
function nameAt(form: Form, address: string): string {
  if (address === 'form') return 'The form'
  if (address === 'sections') return ''
  if (address === 'lists') return 'the lists'
  const place = listPlaces(form).find(p => p.address === address)
  if (place) return `${place.number} ${placeName(place)}`.trim()
  const { node } = locate(form, address)
  return 'rows' in node && 'title' in node ? `the list “${node.title}”` : node.code
}

const WORDS: Readonly<Record<string, string>> = {
  shownWhen: 'shown when',
  required: 'required when',
  validWhen: 'checks',
  readOnly: 'read-only when',
  atLeast: 'not before or below',
  atMost: 'not after or above',
  narrowedBy: 'offers rows where',
  default: 'begins with',
  routes: 'leads to',
  skips: 'goes on at',
  options: 'choices',
  columns: 'side by side',
  span: 'columns taken',
  indent: 'indented',
  notApplicable: 'does not apply',
  rich: 'lightly formatted',
  table: 'looked up',
  writeIns: 'own words at most',
}
/** Properties that hold always, or when a condition does. */
const WHEN: ReadonlySet<string> = new Set(['required', 'readOnly'])

/** A property in words: `patternMessage` is “pattern message”. */
const wordsOf = (key: string): string =>
  WORDS[key] ?? key.replaceAll(/[A-Z]/g, letter => ` ${letter.toLowerCase()}`)

/** A value as it is read: lists by what their parts are called. */
function valueText(value: unknown, key: string): string {
  if (value === undefined || value === null || value === false) return ''
  if (value === true) return WHEN.has(key) ? 'always' : 'yes'
  return shortened(longText(value))
}

const shortened = (text: string): string =>
  text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS - 1)}…` : text

function longText(value: unknown): string {
  if (typeof value === 'string') return value.startsWith('data:') ? 'a picture' : value
  if (Array.isArray(value)) return value.map(longText).join(', ')
  if (typeof value !== 'object' || value === null) return JSON.stringify(value)
  const parts = new Map<string, unknown>(Object.entries(value))
  const called =
    parts.get('label') ?? parts.get('title') ?? parts.get('rule') ?? parts.get('when') ?? parts.get('code')
  return typeof called === 'string' ? called : partsText(parts)
}

/** The parts of something by their names: `accent #1d4f7c, corner 6`. */
const partsText = (parts: ReadonlyMap<string, unknown>): string =>
  [...parts].map(([key, value]) => `${wordsOf(key)} ${longText(value)}`).join(', ')

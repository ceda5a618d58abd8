import { codeFromLabel, freeCode, takenCodes } from './codes'
import { newItem } from './create'
import type { Form, Item, Section } from './definition'
import { LIMITS } from './limits'
import { isQuestionType, type Option, type QuestionType } from './questions'
import type { Spot } from './clipboard'
import type { Edit } from './edits'
import { typeNamed } from './typeHints'
import type { Address } from './walk'

/** What a pasted text would become: sections and questions, before anything is inserted, to be looked at and corrected. */
export type Drafted =
  | { kind: 'section'; title: string }
  | {
      kind: 'question'
      label: string
      type: QuestionType
      options: string[]
      required: boolean
      help: string
      code: string
      writeIn: boolean
    }
  | { kind: 'note'; text: string }

const MOST_LINES = 3_000
const HEADING = /^(?:#+\s*|(?:section|part|page|chapter)\s+(?:\d+|[ivx]+|[a-z])\b\s*[:.)–-]?\s*)(.*)$/i
const NUMBERED = /^(?:q(?:uestion)?\s*)?\d+(?:\.\d+)*\s*[.):–-]\s*(.+)$/i
const BULLET = /^(?:[-*•◦‣▪▢□☐○●]|\[\s?[x✓]?\s?\]|\(\s?\)|o(?=\s)|[a-z]\)|\([a-z]\))\s*(.+)$/i
const HINT = /\s*[[(]\s*([a-z][a-z /-]{2,24})\s*[\])]\s*$/i

/** What a label sounds like, the first that fits. */
const SOUNDS: readonly (readonly [RegExp, QuestionType])[] = [
  [/\be-?mail\b/i, 'email'],
  [/\b(?:phone|telephone|mobile)\b/i, 'phone'],
  [/\b(?:website|web address|url)\b/i, 'url'],
  [/\b(?:signature|signed)\b/i, 'signature'],
  [/\bdate and time\b/i, 'dateTime'],
  [/\b(?:date|birthday|day of)\b|^when\b/i, 'date'],
  [/\b(?:what time|time of)\b/i, 'time'],
  [/\bhow (?:many|old)\b|\bnumber of\b|^age\b/i, 'integer'],
  [/\b(?:price|cost|fee|amount|how much does)\b/i, 'money'],
  [/\b(?:describe|explain|comments?|remarks?|details|anything else)\b/i, 'longText'],
  [/\b(?:upload|attach|photo(?:graph)?s?)\b/i, 'file'],
  [/^(?:do|does|did|is|are|was|were|has|have|had|can|could|will|would|should|shall|may)\b/i, 'yesNo'],
  [/^(?!(?:what|which|how|who|whom|whose|when|where|why)\b).*\?$/i, 'yesNo'],
]
const ALL_THAT_APPLY = /\b(?:all that apply|several|more than one|any number)\b/i
const OTHER = /^other\b(?:.*(?:say|specify|which|what)|\s*[:_…(].*|)$/i

/** Reads a text outline (questions with options under them) or rows of a spreadsheet. Nothing is refused: every line becomes something. */
export function readOutline(text: string): Drafted[] {
  const lines = text.replaceAll('\r', '').split('\n').slice(0, MOST_LINES)
  const filled = lines.filter(l => l.trim() !== '')
  const isTable =
    filled.length > 0 && filled.filter(l => l.includes('\t')).length >= Math.max(1, filled.length * 0.6)
  return isTable ? fromTable(filled.map(l => l.split('\t').map(c => c.trim()))) : fromLines(filled)
}

const COLUMNS: Readonly<Record<string, RegExp>> = {
  label: /^(?:question|label|text|field|title|name)$/i,
  type: /^(?:type|kind|answer type)$/i,
  options: /^(?:options?|choices?|values?|answers?)$/i,
  required: /^(?:required|mandatory|must)$/i,
  help: /^(?:help|hint|note|description)$/i,
  code: /^(?:code|id|key|variable)$/i,
  section: /^(?:section|page|part|group)$/i,
}

function fromTable(rows: string[][]): Drafted[] {
  const [first = []] = rows
  const named = new Map(
    Object.entries(COLUMNS).flatMap(([key, pattern]) => {
      const at = first.findIndex(c => pattern.test(c))
      return at < 0 ? [] : [[key, at] as const]
    }),
  )
  const hasHeader = named.has('label')
  const at = (key: string, fallback: number) => (hasHeader ? (named.get(key) ?? -1) : fallback)
  const [label, type, options, required, help, code, section] = [
    at('label', 0),
    at('type', 1),
    at('options', 2),
    at('required', 3),
    at('help', -1),
    at('code', -1),
    at('section', -1),
  ]
  let open = ''
  return rows.slice(hasHeader ? 1 : 0).flatMap((row): Drafted[] => {
    const cell = (i: number) => row[i] ?? ''
    const made = draftQuestion(cell(label))
    if (made.label === '') return []
    const listed = cell(options)
      .split(/\s*[;|\n]\s*/)
      .filter(Boolean)
    for (const o of listed) addOption(made, o)
    const typed = cell(type)
    const hinted = isQuestionType(typed) ? typed : typeNamed(typed)
    if (hinted) made.type = hinted
    else settle(made)
    if (/^(?:y|yes|x|true|1|required|\*)$/i.test(cell(required))) made.required = true
    Object.assign(made, { help: cell(help), code: cell(code) })
    const title = cell(section)
    const heading: Drafted[] = title !== '' && title !== open ? [{ kind: 'section', title }] : []
    open = title || open
    return [...heading, made]
  })
}

type DraftedQuestion = Extract<Drafted, { kind: 'question' }>

/** A line of an outline, taken apart. */
interface OutlineLine {
  words: string
  indent: number
  heading: string | null
  numbered: string | undefined
  bullet: string | undefined
}

function readLine(line: string): OutlineLine {
  const words = line.trim()
  const numbered = NUMBERED.exec(words)?.[1]
  return {
    words,
    indent: line.length - line.trimStart().length,
    heading: numbered === undefined ? headingIn(words) : null,
    numbered,
    bullet: BULLET.exec(words)?.[1],
  }
}

/** The title that a line gives to a section; null when it is no heading. */
function headingIn(words: string): string | null {
  const marked = HEADING.exec(words)?.[1]
  if (marked === undefined && !isShouted(words)) return null
  const title = marked || words
  if (title === '') return null
  return isShouted(title) ? sentenceCase(title) : title
}

function fromLines(lines: string[]): Drafted[] {
  const drafted: Drafted[] = []
  let open: DraftedQuestion | null = null
  let depth = 0
  const hasNumbers = lines.some(l => NUMBERED.test(l.trim()))
  for (const line of lines.map(readLine)) {
    const { words, indent, heading, numbered, bullet } = line
    if (heading !== null) {
      drafted.push({ kind: 'section', title: heading })
      open = null
      continue
    }
    if (open && isOption(line, depth, hasNumbers)) {
      addOption(open, bullet ?? words)
      continue
    }
    open = draftQuestion(numbered ?? bullet ?? words)
    depth = indent
    drafted.push(open)
  }
  for (const d of drafted) if (d.kind === 'question') settle(d)
  return drafted
}

/** Whether a line is a choice of the question above it: marked or indented, or not numbered where questions are. */
function isOption({ words, indent, numbered, bullet }: OutlineLine, depth: number, hasNumbers: boolean) {
  if (numbered !== undefined) return false
  return bullet !== undefined || indent > depth || (hasNumbers && !words.endsWith('?'))
}

const isShouted = (words: string) =>
  /\p{Lu}{3}/u.test(words) &&
  words === words.toUpperCase() &&
  !words.includes('?') &&
  words.length < 80 &&
  !BULLET.test(words)
const sentenceCase = (words: string) => words.charAt(0) + words.slice(1).toLowerCase()

/** A question with a label, its hints read: “(required)”, a star, “(tick all that apply)”. */
export function draftQuestion(words: string): DraftedQuestion {
  const STAR = /\s*\*+\s*$/
  const bare = words.replace(/[\s:]*[_.…]{3,}\s*$/, '').trim()
  let label = bare.replace(STAR, '')
  const hint = HINT.exec(label)?.[1]?.toLowerCase()
  const hinted = hint === undefined ? undefined : typeNamed(hint)
  // The star may stand before the hint or behind it.
  const isRequired = STAR.test(bare) || STAR.test(label.replace(HINT, '')) || hint === 'required'
  if (hinted || hint === 'required' || hint === 'optional') label = label.replace(HINT, '')
  label = label.replace(STAR, '').trim().slice(0, LIMITS.label)
  return {
    kind: 'question',
    label,
    type: hinted ?? 'text',
    options: [],
    required: isRequired,
    help: '',
    code: '',
    writeIn: false,
  }
}

function addOption(to: DraftedQuestion, words: string) {
  const label = words
    .replace(/[\s:]*[_…]{2,}\s*$/, '')
    .trim()
    .slice(0, LIMITS.label)
  if ((OTHER.test(words) || OTHER.test(label)) && to.options.length > 0) to.writeIn = true
  else if (label !== '' && to.options.length < LIMITS.options) to.options.push(label)
}

/** The type that the options and the words speak for, unless a hint has said it. */
function settle(q: DraftedQuestion) {
  if (q.options.length === 0) {
    if (q.type === 'text') q.type = SOUNDS.find(([sound]) => sound.test(q.label))?.[1] ?? 'text'
    return
  }
  if (isYesNo(q)) {
    q.type = 'yesNo'
    q.options = []
    return
  }
  if (q.type !== 'choices' && q.type !== 'ranking')
    q.type = ALL_THAT_APPLY.test(q.label) ? 'choices' : 'choice'
}

/** Whether the choices are a plain yes and a plain no. */
function isYesNo({ options, writeIn }: DraftedQuestion): boolean {
  const [yes = '', no = '', ...more] = options
  const isPlain = /^yes\b/i.test(yes) && yes.length < 6 && /^no\b/i.test(no)
  return isPlain && more.length === 0 && !writeIn
}

/** The edits that insert what was drafted: questions before the first heading go to a spot, each heading begins a section behind it. */
export function outlineEdits(
  form: Form,
  drafted: readonly Drafted[],
  spot: Spot,
  sectionAt: number,
): { edits: Edit[]; addresses: Address[] } {
  const edits: Edit[] = []
  const addresses: Address[] = []
  const codes: string[] = []
  const sections = takenCodes(form, 'section')
  let open: Section | null = null
  let [items, tops] = [spot.at, sectionAt]
  for (const d of drafted) {
    if (d.kind === 'section') {
      const code = freeCode(codeFromLabel(d.title, 'section'), sections)
      sections.add(code)
      open = { code, title: d.title, items: [] }
      edits.push({ do: 'insert', into: 'sections', at: tops++, node: open })
      addresses.push(`section/${code}`)
      continue
    }
    const item = itemOf(form, d, codes)
    codes.push(item.code)
    if (open) open.items.push(item)
    else {
      edits.push({ do: 'insert', into: spot.into, at: items++, node: item })
      addresses.push(`item/${item.code}`)
    }
  }
  return { edits, addresses }
}

function itemOf(form: Form, d: Exclude<Drafted, { kind: 'section' }>, codes: readonly string[]): Item {
  if (d.kind === 'note') return newItem(form, 'note', d.text, codes)
  const made = newItem(form, d.type, d.label, codes)
  if (made.kind !== 'question') return made
  const taken = new Set([...takenCodes(form, 'item'), ...codes])
  const code = /^[a-z][a-z0-9_]{0,59}$/.test(d.code) ? freeCode(d.code, taken) : made.code
  const options: Option[] = []
  for (const label of d.options)
    options.push({ code: freeCode(codeFromLabel(label, 'choice'), new Set(options.map(o => o.code))), label })
  const more = {
    ...(d.help ? { help: d.help } : {}),
    ...(d.required && made.type !== 'value' && made.type !== 'hidden' ? { required: true as const } : {}),
  }
  if (made.type === 'choice' || made.type === 'choices')
    return { ...made, code, ...more, options, ...(d.writeIn ? { writeIn: true as const } : {}) }
  return made.type === 'ranking' ? { ...made, code, ...more, options } : { ...made, code, ...more }
}

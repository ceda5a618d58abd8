import { readdirSync, readFileSync } from 'node:fs'
import { Form, type Item } from '../../core/form/definition'

/** Forms of several trades without a slip, as `tests/fixtures/good/*.txt` says them: a line each, its parts set apart by ` | `. */

const FOLDER = 'tests/fixtures/good'
export const goodForms = (): Form[] =>
  readdirSync(FOLDER)
    .filter(name => name.endsWith('.txt'))
    .sort()
    .map(name => readGoodForm(readFileSync(`${FOLDER}/${name}`, 'utf8')))

type Record_ = Record<string, unknown>
/** What is read so far: the form, and where the next item goes. */
interface Reading {
  form: Record_ & { sections: Record_[]; lists: Record_[]; parties: Record_[] }
  /** By turn, the sections that it fills. */
  turns: { code: string; party: string; fills: string[] }[]
  into: Item[][]
}

/** @throws Error where a line says nothing that is known */
export function readGoodForm(text: string): Form {
  const reading: Reading = {
    form: { tobbin: 2, code: '', title: '', sections: [], lists: [], parties: [] },
    turns: [],
    into: [],
  }
  for (const line of text.split('\n').filter(l => l.trim() !== '')) readLine(reading, line.split(' | '))
  const { lists, parties, ...rest } = reading.form
  const turns = reading.turns.map((_, at) => turnOf(reading, at))
  return Form.parse({
    ...rest,
    ...(lists.length > 0 ? { lists } : {}),
    ...(turns.length > 0 ? { parties, turns } : {}),
  })
}

function readLine({ form, turns, into }: Reading, [head = '', name = '', ...more]: string[]) {
  const [kind = '', code = ''] = head.split(' ')
  if (kind === 'form') Object.assign(form, { code, title: name })
  else if (kind === 'list') form.lists.push(listOf(code, [name, ...more]))
  else if (kind === 'party')
    form.parties.push({ code, name, ...(more.includes('office') ? { office: true } : {}) })
  else if (kind === 'turn') turns.push({ code, party: name, fills: more.join().split(', ') })
  else if (kind === '==') {
    const items: Item[] = []
    form.sections.push({ code, title: name, ...partsOf(more), items })
    into.splice(0, into.length, items)
  } else if (kind === '(') {
    const items: Item[] = []
    push(into, { kind: 'group', code, title: name, ...partsOf(more), items })
    into.push(items)
  } else if (kind === ')') into.pop()
  else push(into, itemOf(kind, code, name, more))
}

function itemOf(code: string, type: string, name: string, more: string[]): Record_ {
  if (type === 'note') return { kind: 'note', code, text: name, ...partsOf(more) }
  const isRequired = type.endsWith('*')
  const plain = type.replace('*', '')
  return {
    kind: 'question',
    code,
    type: plain,
    label: name,
    ...(isRequired ? { required: true } : {}),
    ...(plain === 'money' ? { currency: 'EUR' } : {}),
    ...partsOf(more),
  }
}

const push = (into: Item[][], item: Record_) => into.at(-1)?.push(item as unknown as Item)

/** What the further parts of a line say, by their first word. */
const PARTS: Readonly<Record<string, (words: string) => Record_>> = {
  if: shownWhen => ({ shownWhen }),
  is: value => ({ value }),
  list: list => ({ list }),
  by: narrowedBy => ({ narrowedBy }),
  of: words => ({
    options: words.split(', ').map(option => {
      const [code = '', ...label] = option.split(':')
      return { code, label: label.join(':') }
    }),
  }),
  must: words => {
    const [rule = '', message = ''] = words.split(' :: ')
    return { validWhen: [{ rule, message }] }
  },
  min: words => {
    const [, min, max, unit] = /^(\S+)(?: max (\S+))?(?: unit (.+))?$/.exec(words) ?? []
    return { min: Number(min), ...(max ? { max: Number(max) } : {}), ...(unit ? { unit } : {}) }
  },
}

function partsOf(parts: readonly string[]): Record_ {
  const said: Record_ = {}
  for (const part of parts) {
    const [word = '', ...words] = part.split(' ')
    const entries = /^(\d+)\.\.(\d+)$/.exec(word)
    const read = PARTS[word]
    if (entries) said.repeat = { min: Number(entries[1]), max: Number(entries[2]) }
    else if (read) Object.assign(said, read(words.join(' ')))
    else throw new Error(`“${part}” says nothing that is known.`)
  }
  return said
}

function listOf(code: string, [head = '', ...rows]: string[]): Record_ {
  const columns = head.split(', ')
  const valueOf = (cell: string) => {
    if (cell === 'true' || cell === 'false') return cell === 'true'
    return /^\d+$/.test(cell) ? Number(cell) : cell
  }
  return {
    code,
    columns: columns.slice(2),
    rows: rows.map(row =>
      Object.fromEntries(row.split(', ').map((cell, at) => [columns[at] ?? '', valueOf(cell)])),
    ),
  }
}

/** A turn fills its own sections and reads those of the turns before it; the first comes by the link. */
function turnOf({ form, turns }: Reading, at: number): Record_ {
  const { code, party, fills } = turns[at]!
  const before = turns.slice(0, at).flatMap(t => t.fills)
  const access = form.sections.flatMap((section): [string, string][] => {
    const name = String(section.code)
    if (fills.includes(name)) return [[name, 'fills']]
    return before.includes(name) ? [[name, 'reads']] : []
  })
  const by = at === 0 ? 'link' : { person: `${party}@wherry.example` }
  return { code, party, by, access: Object.fromEntries(access) }
}

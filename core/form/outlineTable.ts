import { addOption, draftQuestion, settle, type Drafted } from './outlineQuestion'
import { isQuestionType } from './questions'
import { typeNamed } from './typeHints'

const COLUMNS: Readonly<Record<string, RegExp>> = {
  label: /^(?:question|label|text|field|title|name)$/i,
  type: /^(?:type|kind|answer type)$/i,
  options: /^(?:options?|choices?|values?|answers?)$/i,
  required: /^(?:required|mandatory|must)$/i,
  help: /^(?:help|hint|note|description)$/i,
  code: /^(?:code|id|key|variable)$/i,
  section: /^(?:section|page|part|group)$/i,
}

/** What rows of a spreadsheet become, by their headings where they have some. */
export function fromTable(rows: string[][]): Drafted[] {
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

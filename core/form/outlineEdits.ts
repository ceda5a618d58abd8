import type { Spot } from './clipboard'
import { codeFromLabel, freeCode, takenCodes } from './codes'
import { newItem } from './create'
import type { Form, Item, Section } from './definition'
import type { Edit } from './edits'
import type { Drafted, DraftedQuestion } from './outlineQuestion'
import type { Option, Question } from './questions'
import type { Address } from './walk'

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
  const asked = new Map<number, Question>()
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
    const item = itemOf(form, d, codes, asked)
    codes.push(item.code)
    if (item.kind === 'question' && d.kind === 'question') asked.set(d.line, item)
    if (open) open.items.push(item)
    else {
      edits.push({ do: 'insert', into: spot.into, at: items++, node: item })
      addresses.push(`item/${item.code}`)
    }
  }
  return { edits, addresses }
}

function itemOf(
  form: Form,
  d: Exclude<Drafted, { kind: 'section' }>,
  codes: readonly string[],
  asked: ReadonlyMap<number, Question>,
): Item {
  if (d.kind === 'note') return newItem(form, 'note', d.text, codes)
  const made = newItem(form, d.type, d.label, codes)
  if (made.kind !== 'question') return made
  const taken = new Set([...takenCodes(form, 'item'), ...codes])
  const code = /^[a-z][a-z0-9_]{0,59}$/.test(d.code) ? freeCode(d.code, taken) : made.code
  const shownWhen = ruleBehind(d, asked)
  const more = {
    ...(d.help ? { help: d.help } : {}),
    ...(shownWhen ? { shownWhen } : {}),
    ...(d.required && made.type !== 'value' && made.type !== 'hidden' ? { required: true as const } : {}),
  }
  return { ...withOptions(made, d), code, ...more }
}

/** A question with the choices and the range that it was drafted with. */
function withOptions(made: Question, d: DraftedQuestion): Question {
  const options: Option[] = []
  for (const label of d.options)
    options.push({ code: freeCode(codeFromLabel(label, 'choice'), new Set(options.map(o => o.code))), label })
  if (made.type === 'choice' || made.type === 'choices')
    return { ...made, options, ...(d.writeIn ? { writeIn: true as const } : {}) }
  if (made.type === 'ranking') return { ...made, options }
  const isRanged = made.type === 'scale' || made.type === 'integer' || made.type === 'decimal'
  return isRanged && d.range ? { ...made, ...d.range } : made
}

/** The rule of a question that is asked behind an answer to another: null where that answer is none there. */
function ruleBehind({ behind }: DraftedQuestion, asked: ReadonlyMap<number, Question>): string | null {
  const parent = behind ? asked.get(behind.line) : undefined
  if (!behind || !parent) return null
  const answer = behind.answer.toLowerCase()
  if (parent.type === 'yesNo') {
    if (answer === 'yes') return `${parent.code} = true`
    return answer === 'no' || answer === 'not' ? `${parent.code} = false` : null
  }
  if (parent.type !== 'choice' && parent.type !== 'choices') return null
  const option = parent.options?.find(o => o.label.toLowerCase() === answer)
  if (!option) return null
  return parent.type === 'choice'
    ? `${parent.code} = "${option.code}"`
    : `list contains(${parent.code}, "${option.code}")`
}

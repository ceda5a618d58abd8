import { FORMATS } from './quotes'

/** The formats of quotes in templates: those of texts, and numbers in words. */
export const TEMPLATE_FORMATS = [...FORMATS, 'in words'] as const
export type TemplateFormat = (typeof TEMPLATE_FORMATS)[number]
export const isTemplateFormat = (text: string): text is TemplateFormat =>
  TEMPLATE_FORMATS.some(f => f === text)

/**
 * What stands in a template between `{{` and `}}`: a quote with its format, the beginning of a clause (`#when insured = true`), what is printed
 * else, the beginning of a loop (`#each engines`), and their ends (`/when`, `/each`).
 */
export type Tag =
  | { is: 'quote'; source: string; format: TemplateFormat | null }
  | { is: 'when'; source: string }
  | { is: 'else' }
  | { is: 'each'; source: string }
  | { is: 'end'; of: 'when' | 'each' }

/** A tag can't be read: why. */
export interface FaultyTag {
  is: 'faulty'
  sentence: string
}

const TAG = /\{\{([\s\S]*?)\}\}/g

/** What word processors make of plain signs, and the plain sign again. */
const PLAIN: readonly (readonly [RegExp, string])[] = [
  [/[\u201c\u201d\u201e\u201f\u00ab\u00bb\u2033]/g, '"'],
  [/[\u2018\u2019\u201a\u201b]/g, "'"],
  [/[\u00a0\u2000-\u200a\u202f]/g, ' '],
  [/[\u2010-\u2015\u2212]/g, '-'],
  [/[\u200b-\u200d\u2060\ufeff\u00ad]/g, ''],
  [/\u2264|\u21d0/g, '<='],
  [/\u2265/g, '>='],
  [/\u2260/g, '!='],
]

/** The inside of a tag as it was meant: typographic quotes, dashes, blanks and signs are the plain ones again. */
export const plainSigns = (text: string): string =>
  PLAIN.reduce((done, [typographic, plain]) => done.replaceAll(typographic, plain), text).trim()

/** A tag where it stands in a text: `from` and `to` are its braces, in UTF-16 units. */
export interface PlacedTag {
  tag: Tag | FaultyTag
  from: number
  to: number
}

/** Every tag of a text, in order. */
export const findTags = (text: string): PlacedTag[] =>
  [...text.matchAll(TAG)].map(({ 0: whole, 1: inner = '', index }) => ({
    tag: readTag(inner),
    from: index,
    to: index + whole.length,
  }))

/** Where braces are left open, or closed that were not opened: an offset in the text; −1 where none are. */
export function findLooseBraces(text: string): number {
  const between = text.replaceAll(TAG, whole => ' '.repeat(whole.length))
  return between.search(/\{\{|\}\}/)
}

/** Reads what stands between the braces of a tag. */
export function readTag(inner: string): Tag | FaultyTag {
  const text = plainSigns(inner)
  if (text === '') return { is: 'faulty', sentence: 'There is nothing between the braces.' }
  if (/^#?\s*else$/i.test(text)) return { is: 'else' }
  const end = /^\/\s*(\w*)$/.exec(text)
  if (end) return readEnd(end[1] ?? '')
  const begun = /^#\s*(\w*)\s*([\s\S]*)$/.exec(text)
  if (begun) return readBeginning(begun[1] ?? '', begun[2] ?? '')
  return readQuote(text)
}

function readEnd(word: string): Tag | FaultyTag {
  if (word === 'when' || word === 'each') return { is: 'end', of: word }
  const sentence = `“/${word}” ends nothing: a clause ends with {{/when}}, a loop with {{/each}}.`
  return { is: 'faulty', sentence }
}

function readBeginning(word: string, source: string): Tag | FaultyTag {
  if (word !== 'when' && word !== 'each') {
    const sentence = `“#${word}” begins nothing: a clause begins with {{#when …}}, a loop with {{#each …}}.`
    return { is: 'faulty', sentence }
  }
  if (source !== '') return { is: word, source }
  const sentence =
    word === 'when'
      ? 'The clause has no condition: {{#when insured = true}}.'
      : 'The loop does not say over what: {{#each engines}}.'
  return { is: 'faulty', sentence }
}

function readQuote(text: string): Tag | FaultyTag {
  const bar = text.lastIndexOf('|')
  if (bar < 0) return { is: 'quote', source: text, format: null }
  const format = text.slice(bar + 1).trim()
  const source = text.slice(0, bar).trim()
  if (source === '') return { is: 'faulty', sentence: 'Nothing is quoted before the bar.' }
  if (isTemplateFormat(format)) return { is: 'quote', source, format }
  return { is: 'faulty', sentence: `There is no format “${format}”.` }
}

/** A tag as it is written. */
export function writeTag(tag: Tag): string {
  if (tag.is === 'else') return '{{else}}'
  if (tag.is === 'end') return `{{/${tag.of}}}`
  if (tag.is !== 'quote') return `{{#${tag.is} ${tag.source}}}`
  return tag.format === null ? `{{ ${tag.source} }}` : `{{ ${tag.source} | ${tag.format} }}`
}

/** A text with other expressions in its tags: those of quotes, clauses and loops. What can't be read stays. */
export const rewriteTags = (text: string, source: (text: string) => string): string =>
  text.replaceAll(TAG, (whole, inner: string) => {
    const tag = readTag(inner)
    if (!('source' in tag)) return whole
    const again = source(tag.source)
    return again === tag.source ? whole : writeTag({ ...tag, source: again })
  })

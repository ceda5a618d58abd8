import { ExpressionError, parse } from '../expressions/parse'
import { nodesOf, type Expr } from '../expressions/tree'
import type { Item, Section } from './definition'
import { rewriteQuotes } from './quotes'

/** New codes by old ones. */
export type Recoding = ReadonlyMap<string, string>

/** A place in a text where another code is to stand; none where the code stays. */
const spot = (text: string | undefined, from: number, to: number) =>
  text === undefined ? [] : [{ from, to, text }]

/** A rule's text with codes replaced, `members` also where a path names them (`engines.power`); the same text where none is used, or it can't be read. */
export function recodeText(text: string, codes: Recoding, members: Recoding = new Map()): string {
  try {
    const spots = nodesOf(parse(text))
      .flatMap(n => {
        if (n.kind === 'name') return spot(codes.get(n.name), n.from, n.to)
        if (n.kind !== 'path' || isRow(n.of)) return []
        return spot(members.get(n.member), n.to - n.member.length, n.to)
      })
      .sort((a, b) => b.from - a.from)
    return spots.reduce((done, s) => done.slice(0, s.from) + s.text + done.slice(s.to), text)
  } catch (error) {
    if (error instanceof ExpressionError) return text
    throw error
  }
}

/** The columns of a row are no questions, whatever they are called. */
const isRow = (of: Expr) =>
  (of.kind === 'name' && of.name === 'row') || (of.kind === 'path' && of.member === 'row')

const RULES: ReadonlySet<string> = new Set([
  'shownWhen',
  'required',
  'readOnly',
  'default',
  'value',
  'narrowedBy',
  'atLeast',
  'atMost',
  'rule',
  'when',
])
/** Texts for people, in which only quotes name codes. */
export const QUOTING: ReadonlySet<string> = new Set([
  'label',
  'title',
  'text',
  'help',
  'message',
  'heading',
  'requiredMessage',
  'patternMessage',
])

interface Rewriting {
  rule: (text: string) => string
  quote: (text: string) => string
  code: (code: string) => string
  section: (code: string) => string
  list: (code: string) => string
}

/** Where a route or skip leads, with the codes of a copy: a section by its code, or an address. */
function recodedTarget(to: string, { code, section }: Rewriting): string {
  if (to.startsWith('item/')) return `item/${code(to.slice('item/'.length))}`
  return to.startsWith('section/') ? `section/${section(to.slice('section/'.length))}` : section(to)
}

/** A node with everything rewritten that names codes: rules, quotes, its own codes, routes, lists. Keys keep their order. */
export function rewritten<T extends Section | Item>(node: T, how: Rewriting): T {
  const visit = (value: unknown, key: string, owner: Readonly<Record<string, unknown>>): unknown => {
    if (Array.isArray(value)) return value.map(v => visit(v, key, owner))
    if (typeof value === 'object' && value !== null) {
      const record: Record<string, unknown> = { ...value }
      return Object.fromEntries(Object.entries(record).map(([k, v]) => [k, visit(v, k, record)]))
    }
    if (typeof value !== 'string') return value
    if (RULES.has(key)) return how.rule(value)
    if (QUOTING.has(key)) return how.quote(value)
    if (key === 'code' && 'kind' in owner) return how.code(value)
    if (key === 'question') return how.code(value)
    if (key === 'to') return recodedTarget(value, how)
    return key === 'list' ? how.list(value) : value
  }
  // The shape is that of the node: only texts were replaced by texts.
  return visit(node, '', { ...node }) as T
}

/** A node with its codes, and everything inside that names them, replaced. */
export function recoded<T extends Section | Item>(
  node: T,
  codes: Recoding,
  sections: Recoding = new Map(),
  lists: Recoding = new Map(),
): T {
  const inEntries = new Set(entryCodesIn(node, false))
  const members = new Map([...codes].filter(([code]) => inEntries.has(code)))
  const rule = (text: string) => recodeText(text, codes, members)
  return rewritten(node, {
    rule,
    quote: text => rewriteQuotes(text, rule),
    code: code => codes.get(code) ?? code,
    section: code => sections.get(code) ?? code,
    list: code => lists.get(code) ?? code,
  })
}

/** Every code of questions, groups and notes in a node, its own among them. */
export function codesIn(node: Section | Item): string[] {
  const own = 'kind' in node ? [node.code] : []
  return 'items' in node ? [...own, ...node.items.flatMap(codesIn)] : own
}

/** The codes of what is asked once per entry. */
function entryCodesIn(node: Section | Item, inside: boolean): string[] {
  const own = inside && 'kind' in node ? [node.code] : []
  const within = inside || ('repeat' in node && node.repeat !== undefined)
  return 'items' in node ? [...own, ...node.items.flatMap(i => entryCodesIn(i, within))] : own
}

/** The lists that a node's questions take their choices from. */
export function listsIn(node: Section | Item): string[] {
  if ('items' in node) return node.items.flatMap(listsIn)
  return node.kind === 'question' ? listsOf(node) : []
}

/** The lists of a single node: where its choices come from, and what its answers are looked up in. */
export function listsOf(node: Section | Item): string[] {
  const chosen = 'list' in node && node.list !== undefined ? [node.list] : []
  return 'table' in node && node.table ? [...chosen, node.table.list] : chosen
}

import { z } from 'zod'
import { Form, Group, Item, Section, Note } from './definition'
import { ChoiceList, Row } from './choiceLists'
import { Question } from './questions'
import { LIMITS } from './limits'
import { problemsOf } from './read'
import { listPlaces, type Address } from './walk'

/** An address as it is written: `section/boat`, `item/hull#2`. */
export const AddressText = z
  .string()
  .max(LIMITS.code + 20)
  .regex(/^(?:section|item|list)\/[a-z][a-z0-9_]*(?:#[1-9]\d{0,3})?$/)
const Target = z.union([z.literal('form'), AddressText])
const Container = z.union([z.literal('sections'), z.literal('lists'), AddressText])
const Index = z.int().min(0).max(LIMITS.rows)

/** Puts a section, list or item at an index of a container. */
export const Insert = z.strictObject({
  do: z.literal('insert'),
  into: Container,
  at: Index,
  node: z.union([Section, ChoiceList, Item]),
})
/** Takes something out, with all that stands in it. */
export const Remove = z.strictObject({ do: z.literal('remove'), what: AddressText })
/** Moves something; the index counts after it has been taken out. */
export const Move = z.strictObject({ do: z.literal('move'), what: AddressText, into: Container, at: Index })
/** Sets properties (null takes one away); `keys` is the order in which they stand afterwards. */
export const Change = z.strictObject({
  do: z.literal('change'),
  what: Target,
  set: z.record(z.string().max(40), z.unknown()),
  keys: z.array(z.string().max(40)).max(100).optional(),
})
/** Takes some rows of a list out at an index and puts others in their place. `codes`: what the rows taken out are called, so that rows that have moved meanwhile stay untouched. */
export const Splice = z.strictObject({
  do: z.literal('splice'),
  what: AddressText,
  at: Index,
  remove: Index,
  codes: z.array(z.string().max(LIMITS.code)).max(LIMITS.rows).optional(),
  rows: z.array(Row).max(LIMITS.rows),
})
/** Puts a whole definition in place of the draft: an earlier state brought back. */
export const Replace = z.strictObject({ do: z.literal('replace'), form: Form })
/** An edit of a draft. Each has an inverse, which `applyEdit` gives. */
export const Edit = z.discriminatedUnion('do', [Insert, Remove, Move, Change, Splice, Replace])

export type Edit = z.infer<typeof Edit>
type Node = z.infer<typeof Section> | z.infer<typeof ChoiceList> | Item

/** An edit that can't be made: the sentence says why. Nothing was changed. */
export class EditError extends Error {
  override name = 'EditError'
}

export interface Edited {
  form: Form
  inverse: Edit
}

/**
 * Makes one edit.
 * @throws EditError when the place does not exist or the result would have a wrong shape.
 */
export function applyEdit(form: Form, edit: Edit): Edited {
  switch (edit.do) {
    case 'insert':
      return insert(form, edit)
    case 'remove':
      return remove(form, edit)
    case 'move':
      return move(form, edit)
    case 'change':
      return change(form, edit)
    case 'splice':
      return splice(form, edit)
    case 'replace':
      return { form: edit.form, inverse: { do: 'replace', form } }
  }
}

/** Makes several edits, all or none; the inverses stand in the order in which they undo. */
export function applyEdits(form: Form, edits: readonly Edit[]): { form: Form; inverses: Edit[] } {
  const inverses: Edit[] = []
  for (const edit of edits) {
    const done = applyEdit(form, edit)
    form = done.form
    inverses.unshift(done.inverse)
  }
  return { form, inverses }
}

function insert(form: Form, edit: z.infer<typeof Insert>): Edited {
  const into = containerOf(form, edit.into)
  if (edit.at > into.children.length) throw new EditError(`There is no position ${edit.at + 1} here.`)
  const next = into.replace(into.children.toSpliced(edit.at, 0, edit.node))
  return { form: next, inverse: { do: 'remove', what: addressAfter(next, edit.into, edit.at) } }
}

function remove(form: Form, edit: z.infer<typeof Remove>): Edited {
  const found = locate(form, edit.what)
  const into = containerOf(form, found.container)
  return {
    form: into.replace(into.children.toSpliced(found.index, 1)),
    inverse: { do: 'insert', into: found.container, at: found.index, node: found.node },
  }
}

function move(form: Form, edit: z.infer<typeof Move>): Edited {
  const found = locate(form, edit.what)
  if (edit.into === edit.what || isInside(found.node, edit.into))
    throw new EditError('A group can’t be moved into itself.')
  const without = remove(form, { do: 'remove', what: edit.what }).form
  const into = containerOf(without, edit.into)
  if (edit.at > into.children.length) throw new EditError(`There is no position ${edit.at + 1} here.`)
  const next = into.replace(into.children.toSpliced(edit.at, 0, found.node))
  return {
    form: next,
    inverse: {
      do: 'move',
      what: addressAfter(next, edit.into, edit.at),
      into: found.container,
      at: found.index,
    },
  }
}

function change(form: Form, edit: z.infer<typeof Change>): Edited {
  if (edit.what === 'form') {
    const { node, inverse } = changed(form, edit)
    return { form: fits(Form, node), inverse }
  }
  const found = locate(form, edit.what)
  const { node, inverse } = changed(found.node, edit)
  const into = containerOf(form, found.container)
  const next = into.replace(into.children.toSpliced(found.index, 1, fits(schemaOf(found.node), node)))
  return { form: next, inverse: { ...inverse, what: addressAfter(next, found.container, found.index) } }
}

function splice(form: Form, { what, at, remove, codes, rows }: z.infer<typeof Splice>): Edited {
  const found = locate(form, what)
  if (!isList(found.node)) throw new EditError('Only lists have rows.')
  const before = found.node.rows
  if (at + remove > before.length)
    throw new EditError(`The list has ${before.length} rows; row ${at + remove} is not there any more.`)
  if (codes && (codes.length !== remove || codes.some((code, i) => before[at + i]?.code !== code)))
    throw new EditError('The rows have moved or changed meanwhile.')
  if (before.length - remove + rows.length > LIMITS.rows)
    throw new EditError(`A list has at most ${LIMITS.rows} rows.`)
  const list = { ...found.node, rows: before.toSpliced(at, remove, ...(rows.length < 10_000 ? rows : [])) }
  // A very long list of arguments overflows the stack.
  if (rows.length >= 10_000) list.rows = [...before.slice(0, at), ...rows, ...before.slice(at + remove)]
  return {
    form: { ...form, lists: form.lists?.map((l, i) => (i === found.index ? list : l)) },
    inverse: {
      do: 'splice',
      what,
      at,
      remove: rows.length,
      ...(codes ? { codes: rows.map(r => r.code) } : {}),
      rows: before.slice(at, at + remove),
    },
  }
}

function changed(
  node: object,
  edit: z.infer<typeof Change>,
): { node: Record<string, unknown>; inverse: z.infer<typeof Change> } {
  const before = new Map<string, unknown>(Object.entries(node))
  const after = new Map(before)
  const old: Record<string, unknown> = {}
  for (const [key, value] of Object.entries(edit.set)) {
    old[key] = before.get(key) ?? null
    if (value === null || value === undefined) after.delete(key)
    else after.set(key, value)
  }
  const keys = [...(edit.keys ?? []), ...after.keys()].filter(
    (key, i, all) => after.has(key) && all.indexOf(key) === i,
  )
  return {
    node: Object.fromEntries(keys.map(key => [key, after.get(key)])),
    inverse: { do: 'change', what: edit.what, set: old, keys: [...before.keys()] },
  }
}

function schemaOf(node: Node): z.ZodType<Node> {
  if (!('kind' in node)) return 'rows' in node ? ChoiceList : Section
  return { question: Question, note: Note, group: Group }[node.kind]
}

function fits<T>(schema: z.ZodType<T>, value: unknown): T {
  const result = schema.safeParse(value)
  if (!result.success) {
    const [problem] = problemsOf(result.error, value)
    throw new EditError(
      problem ? `${problem.path ? `${problem.path}: ` : ''}${problem.sentence}` : 'This does not fit here.',
    )
  }
  // The value itself, whose keys stand in the order wanted; Zod's copy has the order of the schema.
  const kept = (v: unknown): v is T => v === value
  return kept(value) ? value : result.data
}

interface Located {
  node: Node
  container: z.infer<typeof Container>
  index: number
}

/** Finds what an address points at. @throws EditError when there is no such thing. */
export function locate(form: Form, address: string): Located {
  const [kind, rest = ''] = address.split('/')
  const [code = '', nth = '1'] = rest.split('#')
  let left = Number(nth)
  const found = (list: readonly Node[], container: Located['container']): Located | null => {
    for (const [index, node] of list.entries())
      if (node.code === code && (left -= 1) === 0) return { node, container, index }
    return null
  }
  const inItems = (
    items: readonly Item[],
    container: Located['container'],
    count: Map<string, number>,
  ): Located | null => {
    for (const [index, node] of items.entries()) {
      if (node.code === code && (left -= 1) === 0) return { node, container, index }
      const inner =
        node.kind === 'group'
          ? inItems(node.items, itemAddress(node, count), count)
          : (itemAddress(node, count), null)
      if (inner) return inner
    }
    return null
  }
  const sections = new Map<string, number>()
  const items = new Map<string, number>()
  const inSections = () =>
    form.sections.reduce<Located | null>((done, s) => {
      const container = countedAddress('section', s.code, sections)
      return done ?? inItems(s.items, container, items)
    }, null)
  const search: Partial<Record<string, () => Located | null>> = {
    section: () => found(form.sections, 'sections'),
    list: () => found(form.lists ?? [], 'lists'),
  }
  const result = (search[kind ?? ''] ?? inSections)()
  if (!result) throw new EditError(`“${code}” is no longer here.`)
  return result
}

const itemAddress = (node: Item, count: Map<string, number>) => countedAddress('item', node.code, count)

function countedAddress(
  kind: 'section' | 'item' | 'list',
  code: string,
  count: Map<string, number>,
): Address {
  const n = (count.get(code) ?? 0) + 1
  count.set(code, n)
  return n === 1 ? `${kind}/${code}` : `${kind}/${code}#${n}`
}

interface OpenContainer {
  children: readonly Node[]
  replace: (children: readonly Node[]) => Form
}

function containerOf(form: Form, into: z.infer<typeof Container>): OpenContainer {
  if (into === 'sections')
    return {
      children: form.sections,
      replace: children => ({ ...form, sections: children.map(c => only(c, isSection)) }),
    }
  if (into === 'lists')
    return {
      children: form.lists ?? [],
      replace: children =>
        withLists(
          form,
          children.map(c => only(c, isList)),
        ),
    }
  const found = locate(form, into)
  const { node } = found
  if (isSection(node)) {
    return {
      children: node.items,
      replace: children => replaceChild(form, found, { ...node, items: children.map(c => only(c, isItem)) }),
    }
  }
  if (isItem(node) && node.kind === 'group') {
    return {
      children: node.items,
      replace: children => replaceChild(form, found, { ...node, items: children.map(c => only(c, isItem)) }),
    }
  }
  throw new EditError('Only sections and groups hold questions.')
}

/** The addresses of what stands in a container, in its order. @throws EditError when there is no such container. */
export function siblingsIn(form: Form, into: z.infer<typeof Container>): Address[] {
  const { children } = containerOf(form, into)
  if (into === 'lists') return children.map(node => `list/${node.code}` as const)
  const own = new Set<object>(children)
  return listPlaces(form).flatMap(place => (own.has(place.node) ? place.address : []))
}

function withLists(form: Form, lists: z.infer<typeof ChoiceList>[]): Form {
  if (lists.length > 0) return { ...form, lists }
  const { lists: _, ...rest } = form
  return rest
}

function replaceChild(form: Form, found: Located, node: Node): Form {
  const outer = containerOf(form, found.container)
  return outer.replace(outer.children.toSpliced(found.index, 1, node))
}

const isItem = (node: Node): node is Item => 'kind' in node
const isList = (node: Node): node is z.infer<typeof ChoiceList> => 'rows' in node && !('kind' in node)
const isSection = (node: Node): node is z.infer<typeof Section> => !isItem(node) && !isList(node)

function kindOfNode(node: Node): 'section' | 'list' | 'item' {
  if (isSection(node)) return 'section'
  return isList(node) ? 'list' : 'item'
}

function only<T extends Node>(node: Node, is: (node: Node) => node is T): T {
  if (!is(node)) throw new EditError('This can’t stand here.')
  return node
}

const isInside = (node: Node, address: string): boolean => {
  if (!('items' in node)) return false
  return node.items.some(item => address === `item/${item.code}` || isInside(item, address))
}

/** The address of what now stands at an index of a container. */
function addressAfter(form: Form, container: z.infer<typeof Container>, index: number): Address {
  const node = containerOf(form, container).children[index]
  if (!node) throw new EditError('There is nothing at this position.')
  const kind = kindOfNode(node)
  for (let n = 1; ; n++) {
    const address: Address = n === 1 ? `${kind}/${node.code}` : `${kind}/${node.code}#${n}`
    if (locate(form, address).node === node) return address
  }
}

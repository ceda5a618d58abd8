import type { Form, Item } from './definition'
import { applyEdit, EditError, locate, siblingsIn, type Edit } from './edits'
import { isSameJson } from './sameJson'
import { listPlaces } from './walk'

type Node = Extract<Edit, { do: 'insert' }>['node']
type Container = Extract<Edit, { do: 'insert' }>['into']

/**
 * Edits that make one state of a form of another, as few as its addresses tell: what stands under the same code is the same thing, moved or
 * changed; all else was added or taken out. Where they can’t be told so (a code that something of another kind has now, the same code twice),
 * the whole is replaced.
 */
export function editsBetween(before: Form, after: Form): Edit[] {
  if (isSameJson(before, after)) return []
  try {
    const steps = new Steps(before)
    // What goes with all that stands in it goes first, under the numbers that people know it by.
    const staying = addressesOf(after)
    takeOut(steps, staying, address => !holdsAny(before, address, staying))
    arrangeAll(steps, after)
    takeOut(steps, staying, () => true)
    changeAll(steps, after)
    if (isSameJson(steps.form, after)) return steps.edits
  } catch (error) {
    if (!(error instanceof EditError)) throw error
  }
  return [{ do: 'replace', form: after }]
}

/** Edits made one after the other, and the form as it is after them. */
class Steps {
  readonly edits: Edit[] = []

  constructor(public form: Form) {}

  make(edit: Edit) {
    this.form = applyEdit(this.form, edit).form
    this.edits.push(edit)
  }
}

/** Puts everything of a form where it stands there: containers before what stands in them, so that nothing is lost with those taken out later. */
function arrangeAll(steps: Steps, after: Form) {
  arrange(steps, after, 'sections')
  for (const { address, node } of listPlaces(after)) if ('items' in node) arrange(steps, after, address)
  arrange(steps, after, 'lists')
}

function arrange(steps: Steps, after: Form, into: Container) {
  const wanted = siblingsIn(after, into)
  const there = siblingsIn(steps.form, into)
  if (isSameJson(wanted, there)) return
  const known = addressesOf(steps.form)
  const staying = longestInOrder(wanted, there)
  let now = there
  for (const [i, what] of wanted.entries()) {
    const above = wanted[i - 1]
    if (staying.has(what)) continue
    now = now.filter(address => address !== what)
    const at = above === undefined ? 0 : now.indexOf(above) + 1
    if (known.has(what)) steps.make({ do: 'move', what, into, at })
    else steps.make({ do: 'insert', into, at, node: newNode(after, what, known) })
    now = now.toSpliced(at, 0, what)
  }
}

/** A thing that is put in whole; without what stands in it where some of that comes from elsewhere, and is put there later. */
function newNode(form: Form, address: string, known: ReadonlySet<string>): Node {
  const { node } = locate(form, address)
  if (!('items' in node)) return node
  return node.items.some(item => isOrHolds(item, known)) ? { ...node, items: [] } : node
}

/** The longest part of a list that stands in the same order in another (a longest increasing subsequence of positions): what need not be moved. */
function longestInOrder<T>(wanted: readonly T[], there: readonly T[]): ReadonlySet<T> {
  const positions = new Map(there.map((item, i) => [item, i] as const))
  /** By length: the run of that length that ends first. */
  const runs: { at: number; items: readonly T[] }[] = []
  for (const item of wanted) {
    const at = positions.get(item)
    if (at === undefined) continue
    const length = runs.findIndex(run => run.at > at)
    const before = length < 0 ? runs.at(-1) : runs[length - 1]
    const run = { at, items: [...(before?.items ?? []), item] }
    if (length < 0) runs.push(run)
    else runs[length] = run
  }
  return new Set(runs.at(-1)?.items)
}

/** The addresses of all that a form has. */
const addressesOf = (form: Form): ReadonlySet<string> =>
  new Set([...listPlaces(form).map(p => p.address), ...siblingsIn(form, 'lists')])

/** Whether something of what is kept stands in a thing. */
function holdsAny(form: Form, address: string, kept: ReadonlySet<string>): boolean {
  const { node } = locate(form, address)
  return 'items' in node && node.items.some(item => isOrHolds(item, kept))
}

const isOrHolds = (item: Item, known: ReadonlySet<string>): boolean =>
  known.has(`item/${item.code}`) || (item.kind === 'group' && item.items.some(i => isOrHolds(i, known)))

/** Takes out what does not stay, as far as it may go now; what stands in it goes with it. */
function takeOut(steps: Steps, staying: ReadonlySet<string>, may: (address: string) => boolean) {
  const out = new Set<string>()
  const places = listPlaces(steps.form)
  const sections = places.filter(p => p.kind === 'section')
  for (const { address, groups, section } of places) {
    const around = [...groups, sections[section]].map(p => p?.address)
    const goesAlong = around.some(a => a !== undefined && a !== address && out.has(a))
    if (!staying.has(address) && !goesAlong && may(address)) out.add(address)
  }
  for (const list of siblingsIn(steps.form, 'lists')) if (!staying.has(list)) out.add(list)
  for (const what of out) steps.make({ do: 'remove', what })
}

/** Changes what things say of themselves. */
function changeAll(steps: Steps, after: Form) {
  for (const { address, node } of listPlaces(after)) change(steps, address, node, 'items')
  for (const address of siblingsIn(after, 'lists')) {
    const { node } = locate(after, address)
    change(steps, address, node, 'rows')
    if ('rows' in node) spliceRows(steps, address, node.rows)
  }
  const set = changedBetween(steps.form, after, ['sections', 'lists'])
  if (Object.keys(set).length > 0) steps.make({ do: 'change', what: 'form', set })
}

function change(steps: Steps, what: string, wanted: Node, inside: string) {
  const { node } = locate(steps.form, what)
  const set = changedBetween(node, wanted, [inside])
  if (Object.keys(set).length > 0) steps.make({ do: 'change', what, set })
}

/** The properties that differ, as they are then; null for those that are gone. */
function changedBetween(before: object, after: object, apart: readonly string[]): Record<string, unknown> {
  const [old, wanted] = [new Map(Object.entries(before)), new Map(Object.entries(after))]
  const keys = new Set([...old.keys(), ...wanted.keys()])
  return Object.fromEntries(
    [...keys].flatMap(key => {
      if (apart.includes(key) || isSameJson(old.get(key), wanted.get(key))) return []
      return [[key, wanted.get(key) ?? null]]
    }),
  )
}

type Rows = Extract<Edit, { do: 'splice' }>['rows']

/** Puts other rows in the place of those that differ, between what is the same at the beginning and at the end. */
function spliceRows(steps: Steps, what: string, wanted: Rows) {
  const { node } = locate(steps.form, what)
  const rows: Rows = 'rows' in node && !('kind' in node) ? node.rows : []
  const most = Math.min(rows.length, wanted.length)
  let at = 0
  while (at < most && isSameJson(rows[at], wanted[at])) at += 1
  let end = 0
  while (end < most - at && isSameJson(rows.at(-1 - end), wanted.at(-1 - end))) end += 1
  const remove = rows.length - at - end
  const put = wanted.slice(at, wanted.length - end)
  if (remove + put.length > 0) steps.make({ do: 'splice', what, at, remove, rows: put })
}

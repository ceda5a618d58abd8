import type { Form, Item, Section } from './definition'
import { applyEdit, locate, type Edit } from './edits'
import { splitQuotes } from './quotes'
import { codesIn, QUOTING } from './transform'

/** What some edits of a form have to do with, to tell which of them belong together. Things are `kind/code`. */
export interface Touches {
  /** What is changed, moved, taken out or put in. */
  things: Set<string>
  /** What is put somewhere, and what is called otherwise from then on. */
  made: Set<string>
  /** Where something is put. */
  into: Set<string>
  /** The codes of what is made, and of what is taken out. */
  madeCodes: Set<string>
  goneCodes: Set<string>
  /** Codes that rules and quotes may name, in what is written and in what stood there before. */
  written: Set<string>
  unwritten: Set<string>
  /** Whether everything is another thing afterwards. */
  isAll: boolean
}

/** What edits, made one after the other, have to do with. @throws EditError when they can't be made */
export function touchesOf(form: Form, edits: readonly Edit[]): Touches {
  const touches: Touches = {
    things: new Set(),
    made: new Set(),
    into: new Set(),
    madeCodes: new Set(),
    goneCodes: new Set(),
    written: new Set(),
    unwritten: new Set(),
    isAll: false,
  }
  for (const edit of edits) {
    const { form: next, inverse } = applyEdit(form, edit)
    touch(touches, form, edit)
    addWords(touches.written, edit)
    addWords(touches.unwritten, inverse)
    form = next
  }
  return touches
}

/** Which steps belong together, by what they touch: the positions of each group, groups and positions in their order. */
export function joinSteps(steps: readonly Touches[]): number[][] {
  const groups: number[][] = []
  for (const [at, step] of steps.entries()) {
    const belongs = (group: readonly number[]) =>
      group.some(i => {
        const earlier = steps[i]
        return earlier !== undefined && needs(step, earlier)
      })
    const joined = groups.filter(belongs)
    const rest = groups.filter(group => !joined.includes(group))
    groups.splice(
      0,
      groups.length,
      ...rest,
      [...joined.flat(), at].toSorted((a, b) => a - b),
    )
  }
  return groups.toSorted((a, b) => (a[0] ?? 0) - (b[0] ?? 0))
}

/** Whether a step can't be taken, or means something else, without an earlier one. */
const needs = (later: Touches, earlier: Touches): boolean =>
  later.isAll ||
  earlier.isAll ||
  shares(later.things, earlier.things) ||
  shares(later.into, earlier.made) ||
  shares(later.written, earlier.madeCodes) ||
  shares(later.goneCodes, earlier.unwritten)

const shares = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean => [...a].some(thing => b.has(thing))

function touch(touches: Touches, form: Form, edit: Edit) {
  if (edit.do === 'replace') touches.isAll = true
  else if (edit.do === 'insert') put(touches, edit.into, edit.node)
  else touchThing(touches, form, edit)
  if (edit.do === 'move') touches.into.add(plain(edit.into))
}

function put(touches: Touches, into: string, node: Node) {
  touches.into.add(plain(into))
  for (const thing of thingsIn(node)) {
    touches.things.add(thing)
    touches.made.add(thing)
    touches.madeCodes.add(codeOf(thing))
  }
}

function touchThing(touches: Touches, form: Form, edit: Exclude<Edit, { do: 'insert' | 'replace' }>) {
  if (edit.what === 'form') {
    for (const key of edit.do === 'change' ? Object.keys(edit.set) : []) touches.things.add(`form/${key}`)
    return
  }
  const thing = plain(edit.what)
  touches.things.add(thing)
  if (edit.do === 'remove') {
    for (const inside of thingsIn(locate(form, edit.what).node)) {
      touches.things.add(inside)
      touches.goneCodes.add(codeOf(inside))
    }
  }
  if (edit.do === 'change' && typeof edit.set.code === 'string') {
    const renamed = thing.replace(/\/.*/, `/${edit.set.code}`)
    touches.things.add(renamed)
    touches.made.add(renamed)
    touches.madeCodes.add(edit.set.code)
  }
}

type Node = ReturnType<typeof locate>['node']
const isList = (node: Node): node is Exclude<Node, Section | Item> => 'rows' in node && !('kind' in node)

/** A node and all that stands in it. */
function thingsIn(node: Node): string[] {
  if (isList(node)) return [`list/${node.code}`]
  const items = codesIn(node).map(code => `item/${code}`)
  return 'kind' in node ? items : [`section/${node.code}`, ...items]
}

/** An address without which of several of that code is meant: they are taken for one. */
const plain = (address: string): string => address.replace(/#\d+$/, '')
const codeOf = (thing: string): string => thing.slice(thing.indexOf('/') + 1)

/** Keys of edits and nodes whose words are the language's own. */
const OWN_WORDS: ReadonlySet<string> = new Set(['do', 'kind', 'type', 'keys'])

/** The words that may be codes: all of rules and settings, in texts for people those that they quote. */
function addWords(words: Set<string>, value: unknown, key = '') {
  if (OWN_WORDS.has(key)) return
  if (typeof value === 'string') {
    const read = QUOTING.has(key) ? quotedIn(value) : value
    for (const [word] of read.matchAll(/[a-z][a-z0-9_]*/g)) words.add(word)
  } else if (Array.isArray(value)) value.forEach(v => addWords(words, v, key))
  else if (typeof value === 'object' && value !== null)
    Object.entries(value).forEach(([k, v]) => addWords(words, v, k))
}

const quotedIn = (text: string): string =>
  splitQuotes(text)
    .flatMap(piece => (piece.kind === 'quote' ? piece.source : []))
    .join(' ')

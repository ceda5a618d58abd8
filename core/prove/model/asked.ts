import { namesIn, nodesOf, valuesOfTest, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import type { Plan } from '../../fill/planned'
import type { TextTest } from './textAutomata'
import { textTestIn } from './textClasses'

/** What conditions compare each question with. */
export interface Asked {
  constants: Map<string, Value[]>
  /** Texts that text functions look for in a question's answer. */
  pieces: Map<string, string[]>
  /** What is asked of texts that classes can tell. */
  texts: Map<string, TextTest[]>
  /** Choice questions of which every code counts: compared with another question, or looked through. */
  whole: Set<string>
}

const LITERALS: ReadonlySet<Expr['kind']> = new Set(['number', 'text', 'date', 'time', 'dateTime'])
/** The value of an expression that is a constant; undefined for any other. */
export const constantValue = (e: Expr): Value | undefined =>
  LITERALS.has(e.kind) && 'value' in e && !isExpr(e.value) ? e.value : undefined
const isExpr = (v: unknown): v is Expr => typeof v === 'object' && v !== null && 'kind' in v

/** Collects the constants that conditions compare questions with, by question. */
export function collectAsked(
  expressions: Iterable<Expr>,
  reachedBy: (path: Expr) => readonly Value[] | null = () => null,
): Asked {
  const asked: Asked = { constants: new Map(), pieces: new Map(), texts: new Map(), whole: new Set() }
  const note = (subject: Expr, other: Expr) => {
    const value = constantValue(other)
    if (subject.kind !== 'name') return
    if (value !== undefined) push(asked.constants, subject.name, value)
    else if (other.kind !== 'null') {
      const cells = reachedBy(other)
      if (cells === null) asked.whole.add(subject.name)
      else for (const cell of cells) push(asked.constants, subject.name, cell)
    }
  }
  for (const expr of expressions) for (const node of nodesOf(expr)) noteNode(node, note, asked)
  return asked
}

function noteNode(node: Expr, note: (subject: Expr, other: Expr) => void, asked: Asked) {
  const test = textTestIn(node)
  if (test) for (const t of test.tests) push(asked.texts, test.code, t)
  switch (node.kind) {
    case 'compare':
      note(node.left, node.right)
      note(node.right, node.left)
      break
    case 'between':
      for (const end of [node.low, node.high]) note(node.value, end)
      break
    case 'in':
      for (const test of node.tests) for (const other of valuesOfTest(test)) note(node.value, other)
      break
    case 'path':
      if (node.of.kind === 'name') asked.whole.add(node.of.name)
      break
    case 'call':
      noteCall(node, asked)
  }
}

/** What functions look for in the answers that they are given. */
function noteCall({ name, args }: ExprOf<'call'>, asked: Asked) {
  const isContains = name === 'list contains'
  const [list, element] = args
  if (isContains && list?.kind === 'name' && element && constantValue(element) === undefined)
    asked.whole.add(list.name)
  const sought = args.flatMap(a => (a.kind === 'text' ? [a.value] : []))
  const codes = args.flatMap(a => (a.kind === 'name' ? [a.name] : []))
  for (const text of sought)
    for (const code of codes) {
      if (isContains) push<Value>(asked.constants, code, text)
      else push(asked.pieces, code, text)
    }
}

function push<T>(map: Map<string, T[]>, key: string, value: T) {
  const list = map.get(key)
  if (!list) map.set(key, [value])
  else if (!list.includes(value)) list.push(value)
}

/** What is asked of a calculated text is asked of the answers that it is made of. */
export function propagateAsked(asked: Asked, { questions }: Plan) {
  const made = questions.flatMap(q =>
    q.value?.expr ? [{ code: q.place.code, names: namesIn(q.value.expr) }] : [],
  )
  for (let again = true; again;) {
    again = false
    for (const { code, names } of made) {
      for (const name of names) {
        const [from, to] = [asked.constants.get(code) ?? [], asked.constants.get(name) ?? []]
        const more = from.filter(v => !to.includes(v))
        const isWhole = asked.whole.has(code) && !asked.whole.has(name)
        if (more.length > 0) asked.constants.set(name, [...to, ...more])
        if (isWhole) asked.whole.add(name)
        again ||= more.length > 0 || isWhole
      }
    }
  }
}

import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import type { Answer } from '../../form/answers'
import { isPossible } from '../model/sampleAnswers'
import type { Slice } from './reachState'
import type { StateSpace } from './stateSpace'

/** So many variants of a slice are tried. */
const MOST_TRIED = 24

/**
 * Variants of a slice in which texts are what tests that are left open name: a whole text in one answer (`substring(first, -2) = "sa"`), or
 * its pieces one after the other in those that are joined (`string join([first, last], " ") = "Ines Marlow"`).
 */
export function* namedTextsOf(space: StateSpace, slice: Slice): Generator<Slice> {
  let tried = 0
  for (const part of space.openParts())
    for (const answers of variantsOf(part)) {
      const isFit = Object.entries(answers).every(([code, text]) => isFitting(space, code, text))
      if (!isFit) continue
      tried += 1
      if (tried > MOST_TRIED) return
      yield { ...slice, answers: { ...slice.answers, ...answers } }
    }
}

function isFitting({ model }: StateSpace, code: string, text: Answer): boolean {
  const question = model.stepOf(code)
  return question !== undefined && (text === null || isPossible(text as string, question))
}

function* variantsOf(expr: Expr): Generator<Record<string, Answer>> {
  const nodes = nodesOf(expr)
  const names = namesIn(expr)
  const texts = nodes.flatMap(n => (n.kind === 'text' && n.value !== '' ? [n.value] : []))
  for (const text of texts) {
    for (const node of nodes) {
      const pieces = node.kind === 'call' && node.name === 'string join' ? piecesOf(node.args, text) : null
      if (pieces) yield pieces
    }
    for (const name of names) yield { [name]: text }
  }
}

/** By question that is joined, its piece of a text; the last one has all that is left, and what has no piece is blank. */
function piecesOf([list, glue]: readonly Expr[], text: string): Record<string, Answer> | null {
  if (list?.kind !== 'list') return null
  const names = list.items.flatMap(item => namesIn(item).slice(0, 1))
  const between = glue?.kind === 'text' ? glue.value : ''
  const pieces = between === '' ? [text] : text.split(between)
  const last = pieces.slice(names.length - 1).join(between)
  const all = [...pieces.slice(0, names.length - 1), ...(last === '' ? [] : [last])]
  return Object.fromEntries(names.map((name, at) => [name, all[at] ?? null]))
}

import { nodesOf, type Expr } from '../../expressions/tree'
import { withRule } from '../../form/rules'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'mixed-and-or', severity: 'advice' } as const
const ruled = (shownWhen: string) =>
  example(section('boat', [yesNo('a'), yesNo('b'), yesNo('c'), text('why', { shownWhen })]))

export const mixedAndOr: Check = {
  ...kind,
  about:
    '“and” and “or” stand side by side without brackets: “and” binds first, which may not be what is meant.',
  raises: ruled('a = true or b = true and c = true'),
  spares: ruled('a = true or (b = true and c = true)'),
  run: ({ form, model: { rules } }) =>
    rules.flatMap((rule): Finding[] => {
      const part = rule.expr ? openAnd(rule.expr, rule.text) : null
      if (!part) return []
      const words = rule.text.slice(part.from, part.to).trim()
      const mended = `${rule.text.slice(0, part.from)}(${words})${rule.text.slice(part.to)}`
      return [
        finding(
          kind,
          rule.place,
          `In a rule of ${quotedName(rule.place)}, “${words}” is read together, since “and” binds before “or”. Brackets make it plain.`,
          {
            rule: rule.id,
            conflict: [partAt(rule.place, rule.kind, rule.index)],
            mend: { words: `Write ${mended}`, edits: [withRule(form, rule, mended)] },
          },
        ),
      ]
    }),
}

/** The first “and” inside an “or” that has no brackets around it. */
function openAnd(expr: Expr, text: string): Expr | null {
  for (const node of nodesOf(expr)) {
    if (node.kind !== 'or') continue
    const open = node.parts.find(part => part.kind === 'and' && !isBracketed(part, text))
    if (open) return open
  }
  return null
}

const isBracketed = ({ from, to }: Expr, text: string): boolean => {
  if (text[from] === '(' && text[to - 1] === ')') return closesAtEnd(text.slice(from, to))
  return text.slice(0, from).trimEnd().endsWith('(') && text.slice(to).trimStart().startsWith(')')
}

/** Whether the bracket that opens a text closes at its end. */
function closesAtEnd(text: string): boolean {
  let depth = 0
  for (let i = 0; i < text.length - 1; i++) {
    if (text[i] === '(') depth += 1
    if (text[i] === ')') depth -= 1
    if (depth === 0) return false
  }
  return true
}

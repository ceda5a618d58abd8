import { parseCached, ExpressionError } from '../expressions/parse'
import { nodesOf, type Expr, type Span } from '../expressions/tree'
import { changeEdits } from './changes'
import { isRecord, type Answer } from '../form/answers'
import { ChoiceUses, type ChoiceAt } from '../form/choiceUses'
import type { Row } from '../form/choiceLists'
import type { Form } from '../form/definition'
import { applyEdit, applyEdits, type Edit } from '../form/edits'
import { rewriteQuotes } from '../form/quotes'
import { rulesOf, withRule } from '../form/rules'
import { textsAt, withClosingTexts, withDeliveryTexts, withPaymentTexts, withText } from '../form/texts'
import { listPlaces } from '../form/walk'

/**
 * The edits that say another code wherever a choice’s is said: in rules of every kind, quotes, what stands under it, walks, and the cells of
 * lists that are narrowed by it. The choice itself is for the caller to change, in the same step.
 */
export function renameChoiceEdits(form: Form, at: ChoiceAt, from: string, to: string): Edit[] {
  const edits: Edit[] = []
  let now = form
  /** Each edit is made before the next is worked out: several may change the same list of checks. */
  const make = (edit: Edit) => {
    edits.push(edit)
    now = applyEdit(now, edit).form
  }
  const uses = new ChoiceUses(form, at, from)
  for (const rule of rulesOf(form, uses.places)) {
    const spans = uses.inRule(rule)
    const current = spans.length > 0 ? rulesOf(now).find(r => r.id === rule.id) : undefined
    if (current) make(withRule(now, current, written(current.text, spans, to)))
  }
  for (const place of uses.places)
    for (const text of textsAt(place)) {
      const current = listPlaces(now)
        .filter(p => p.address === place.address)
        .flatMap(textsAt)
      const same = current.find(t => t.key === text.key && t.index === text.index)
      const next = rewriteQuotes(text.text, source => written(source, uses.inQuote(text, source), to))
      if (same && next !== text.text) make(withText(same, next))
    }
  for (const place of uses.places)
    if (uses.isAbove(place) && 'under' in place.node)
      make({ do: 'change', what: place.address, set: { under: { ...place.node.under, option: to } } })
  closingEdits(now, uses, to).forEach(make)
  deliveryEdits(now, uses, to).forEach(make)
  paymentEdits(now, uses, to).forEach(make)
  walkEdits(now, uses, to).forEach(make)
  cellEdits(now, uses, to).forEach(make)
  return edits
}

/** A text with something else at some places, the last of them first. */
const written = (text: string, spans: readonly Span[], to: string): string =>
  spans.reduce((done, span) => done.slice(0, span.from) + to + done.slice(span.to), text)

function closingEdits(form: Form, uses: ChoiceUses, to: string): Edit[] {
  const closings = withClosingTexts(form, text =>
    rewriteQuotes(text, source => written(source, uses.inClosing(source), to)),
  )
  const isSame = JSON.stringify(closings) === JSON.stringify(form.closings)
  return closings && !isSame ? [{ do: 'change', what: 'form', set: { closings } }] : []
}

function deliveryEdits(form: Form, uses: ChoiceUses, to: string): Edit[] {
  const text = (said: string) => rewriteQuotes(said, source => written(source, uses.inClosing(source), to))
  const deliveries = withDeliveryTexts(form, { text, code: code => code })
  const isSame = JSON.stringify(deliveries) === JSON.stringify(form.deliveries)
  return deliveries && !isSame ? [{ do: 'change', what: 'form', set: { deliveries } }] : []
}

function paymentEdits(form: Form, uses: ChoiceUses, to: string): Edit[] {
  const text = (said: string) => rewriteQuotes(said, source => written(source, uses.inClosing(source), to))
  const payment = withPaymentTexts(form, { text, code: code => code })
  if (!payment || payment.title === form.payment?.title) return []
  return [{ do: 'change', what: 'form', set: { payment } }]
}

/** Walks answer with the choice, or expect it. */
function walkEdits(form: Form, uses: ChoiceUses, to: string): Edit[] {
  const isRows = 'field' in uses.at && uses.at.field === 'rows'
  const chosen = (answer: Answer): Answer => {
    if (Array.isArray(answer)) return answer.map((a: Answer) => chosen(a))
    if (isRecord(answer) && isRows) return renamedKeys(answer, uses.code, to)
    if (isRecord(answer)) return mapped(answer, chosen)
    return answer === uses.code && !isRows ? to : answer
  }
  const inAnswers = (answers: Readonly<Record<string, Answer>>): Record<string, Answer> =>
    Object.fromEntries(
      Object.entries(answers).map(([code, answer]) => [
        code,
        uses.isOwner(code) ? chosen(answer) : inEntries(answer),
      ]),
    )
  /** Answers of a repeating group hold those of its entries. */
  const inEntries = (answer: Answer): Answer =>
    Array.isArray(answer)
      ? answer.map((entry: Answer) => (isRecord(entry) ? inAnswers(entry) : entry))
      : answer
  const walks = form.walks?.map(walk => ({
    ...walk,
    answers: inAnswers(walk.answers),
    expect: walk.expect.values ? { ...walk.expect, values: inAnswers(walk.expect.values) } : walk.expect,
  }))
  const isSame = JSON.stringify(walks) === JSON.stringify(form.walks)
  return walks && !isSame ? [{ do: 'change', what: 'form', set: { walks } }] : []
}

const mapped = (record: Readonly<Record<string, Answer>>, change: (answer: Answer) => Answer) =>
  Object.fromEntries(Object.entries(record).map(([key, answer]) => [key, change(answer)]))
const renamedKeys = (record: Readonly<Record<string, Answer>>, from: string, to: string) =>
  Object.fromEntries(Object.entries(record).map(([key, answer]) => [key === from ? to : key, answer]))

/** The cells that say to which choice a row of another list belongs, by the columns that narrowing compares with it. */
function cellEdits(form: Form, uses: ChoiceUses, to: string): Edit[] {
  const columns = new Map<string, Set<string>>()
  for (const { node } of listPlaces(form)) {
    if (!('list' in node) || node.list === undefined || node.narrowedBy === undefined) continue
    const found = columns.get(node.list) ?? new Set()
    columns.set(node.list, found)
    for (const column of linkedColumns(node.narrowedBy, uses)) found.add(column)
  }
  return (form.lists ?? []).flatMap(list => {
    const linked = [...(columns.get(list.code) ?? [])]
    const changes = new Map<number, Row>()
    for (const [position, row] of list.rows.entries())
      for (const column of linked)
        if (row[column] === uses.code)
          changes.set(position, { ...(changes.get(position) ?? row), [column]: to })
    return changes.size > 0 ? changeEdits(`list/${list.code}`, list.rows, changes) : []
  })
}

/** `row.coast = coast`, `list contains(coasts, row.coast)`: the columns that are compared with the choice. */
function linkedColumns(narrowing: string, uses: ChoiceUses): string[] {
  try {
    return nodesOf(parseCached(narrowing)).flatMap(node => {
      const sides = sidesOf(node)
      const isLinked = sides.some(s => s.kind === 'name' && uses.isOwner(s.name))
      return isLinked ? sides.flatMap(s => columnOf(s) ?? []) : []
    })
  } catch (error) {
    if (error instanceof ExpressionError) return []
    throw error
  }
}
const sidesOf = (node: Expr): readonly Expr[] => {
  if (node.kind === 'compare') return [node.left, node.right]
  return node.kind === 'call' && node.name === 'list contains' ? node.args : []
}
const columnOf = (expr: Expr): string | null =>
  expr.kind === 'path' && expr.of.kind === 'name' && expr.of.name === 'row' ? expr.member : null

/** The edits that put another row in the place of one; where its code is another one, that is said wherever the old one was. */
export function recodeRowEdits(form: Form, list: string, position: number, next: Row): Edit[] {
  const rowsIn = (of: Form) => of.lists?.find(l => l.code === list)?.rows ?? []
  const before = rowsIn(form)[position]
  if (!before) return []
  // What two rows go by is not told apart by rules either.
  const isItsOwn = rowsIn(form).filter(r => r.code === before.code).length === 1
  const renaming =
    isItsOwn && next.code !== before.code ? renameChoiceEdits(form, { list }, before.code, next.code) : []
  const rows = rowsIn(applyEdits(form, renaming).form)
  const row = renaming.length > 0 ? { ...rows[position], code: next.code, label: next.label } : next
  return [...renaming, ...changeEdits(`list/${list}`, rows, new Map([[position, row]]))]
}

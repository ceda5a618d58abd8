import { parse, ExpressionError } from '../expressions/parse'
import { namesIn, nodesOf, type Expr } from '../expressions/tree'
import { boundsOf } from './bounds'
import type { Form } from './definition'
import { applyEdit, applyEdits, type Edit } from './edits'
import { withDocumentTexts } from './documents'
import { rewriteQuotes } from './quotes'
import { rulesOf, withRule } from './rules'
import { textsAt, withClosingTexts, withDeliveryTexts, withPaymentTexts, withText } from './texts'
import { listPlaces, type Address, type Place } from './walk'

/** A rule's text with one code replaced, or the same text where the code is not used (or it can't be read). `groups`: paths through one of these name it too. */
function renamedIn(text: string, from: string, to: string, groups: readonly string[]): string {
  try {
    const expr = parse(text)
    const isMember = (n: Expr) =>
      n.kind === 'path' &&
      n.member === from &&
      namesIn(expr).some(name => groups.includes(name)) &&
      !ofChoice(n.of)
    const spots = nodesOf(expr)
      .flatMap(n => {
        if (n.kind === 'name' && n.name === from) return [{ from: n.from, to: n.to }]
        return isMember(n) ? [{ from: n.to - from.length, to: n.to }] : []
      })
      .sort((a, b) => b.from - a.from)
    return spots.reduce((done, spot) => done.slice(0, spot.from) + to + done.slice(spot.to), text)
  } catch (error) {
    if (error instanceof ExpressionError) return text
    throw error
  }
}

/** The columns of a chosen row are no questions (`harbour.row.depth`). */
const ofChoice = (of: Expr) => of.kind === 'path' && of.member === 'row'

/** The edits that give a section or item another code and re-write every rule, route and quote that uses it. */
export function renameEdits(form: Form, address: Address, code: string): Edit[] {
  const place = listPlaces(form).find(p => p.address === address)
  if (!place || place.code === code) return []
  const edits: Edit[] = []
  const make = (edit: Edit) => {
    edits.push(edit)
    form = applyEdit(form, edit).form
  }
  if (place.kind === 'section') rerouted(form, place.code, code).forEach(make)
  else rewrite(form, place, code, make)
  skippedTo(form, address, `${address.slice(0, address.indexOf('/'))}/${code}`).forEach(make)
  const parties = inParties(form, place.code, code)
  if (parties) make(parties)
  // The rules first: afterwards the address of the renamed thing is another one.
  make({ do: 'change', what: address, set: { code } })
  return edits
}

/** The edit that renames a code where turns and walks name it; null where none does. */
function inParties(form: Form, from: string, to: string): Edit | null {
  const key = (code: string) => (code === from ? to : code)
  const keyed = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(record).map(([k, v]) => [key(k), v]))
  const expected = (what: string, value: unknown): unknown => {
    if (what === 'turns' || typeof value !== 'object' || value === null) return value
    return Array.isArray(value) ? value.map(key) : keyed({ ...value })
  }
  const turns = form.turns?.map(t => ({
    ...t,
    by: typeof t.by === 'object' && 'answer' in t.by ? { answer: key(t.by.answer) } : t.by,
    access: keyed(t.access),
  }))
  const walks = form.walks?.map(({ expect, ...w }) => ({
    ...w,
    answers: keyed(w.answers),
    expect: Object.fromEntries(Object.entries(expect).map(([k, v]) => [k, expected(k, v)])),
  }))
  const changed = (now: unknown, before: unknown) =>
    now !== undefined && JSON.stringify(now) !== JSON.stringify(before)
  const set = {
    ...(changed(turns, form.turns) ? { turns } : {}),
    ...(changed(walks, form.walks) ? { walks } : {}),
  }
  return Object.keys(set).length > 0 ? { do: 'change', what: 'form', set } : null
}

function rerouted(form: Form, from: string, to: string): Edit[] {
  return listPlaces(form).flatMap((p): Edit[] =>
    p.kind === 'section' && p.node.routes?.some(r => r.to === from)
      ? [
          {
            do: 'change',
            what: p.address,
            set: { routes: p.node.routes.map(r => (r.to === from ? { ...r, to } : r)) },
          },
        ]
      : [],
  )
}

/** The edits that lead skips to another address; they only know the first of a code. */
export function skippedTo(form: Form, from: string, to: string): Edit[] {
  return listPlaces(form).flatMap((p): Edit[] => {
    const skips = 'skips' in p.node ? p.node.skips : undefined
    if (!skips?.some(s => s.to === from)) return []
    const led = skips.map(s => (s.to === from ? { ...s, to } : s))
    return [{ do: 'change', what: p.address, set: { skips: led } }]
  })
}

/** The edits that give limits that are worked out another text. */
const boundsWith = (form: Form, again: (text: string) => string): Edit[] =>
  listPlaces(form).flatMap((p): Edit[] => {
    const bounds = p.kind === 'question' ? boundsOf(p.node) : []
    const changed = bounds.filter(b => again(b.limit) !== b.limit)
    return changed.map(b => ({ do: 'change', what: p.address, set: { [b.key]: again(b.limit) } }))
  })

/** Each edit is made before the next is worked out: several may change the same list of checks. */
function rewrite(form: Form, place: Place, to: string, make: (edit: Edit) => void) {
  const from = place.code
  const groups = place.entryOf ? place.groups.map(g => g.code) : []
  const again = (text: string) => renamedIn(text, from, to, groups)
  const step = (edit: Edit) => {
    make(edit)
    form = applyEdit(form, edit).form
  }
  boundsWith(form, again).forEach(step)
  for (const { id, text } of rulesOf(form).filter(rule => rule.kind !== 'bound')) {
    const rule = again(text) === text ? undefined : rulesOf(form).find(r => r.id === id)
    if (rule) step(withRule(form, rule, again(text)))
  }
  const quoting = (text: string) => rewriteQuotes(text, again)
  for (const before of listPlaces(form)) {
    for (const { key, index } of textsAt(before)) {
      const text = listPlaces(form)
        .filter(p => p.address === before.address)
        .flatMap(textsAt)
        .find(t => t.key === key && t.index === index)
      if (text && quoting(text.text) !== text.text) step(withText(text, quoting(text.text)))
    }
    if (before.kind !== 'section' && 'under' in before.node && before.node.under?.question === from)
      step({ do: 'change', what: before.address, set: { under: { ...before.node.under, question: to } } })
  }
  const coded = (code: string) => (code === from ? to : code)
  renamedAround(form, { text: quoting, code: coded, source: again }).forEach(step)
}

/** The edits by which closings, deliveries, the payment and documents quote and name a code anew; none where they do not. */
function renamedAround(
  form: Form,
  { text, code, source }: Record<'text' | 'code' | 'source', (text: string) => string>,
): Edit[] {
  const { closings, deliveries, payment, documents } = form
  const changed = {
    ...(closings ? { closings: withClosingTexts(form, text) } : {}),
    ...(deliveries ? { deliveries: withDeliveryTexts(form, { text, code }) } : {}),
    ...(payment ? { payment: withPaymentTexts(form, { text, code }) } : {}),
    ...(documents ? { documents: documents.map(d => withDocumentTexts(d, { text, source })) } : {}),
  }
  const before: Partial<Record<string, unknown>> = { closings, deliveries, payment, documents }
  return Object.entries(changed).flatMap(([key, value]): Edit[] =>
    JSON.stringify(value) === JSON.stringify(before[key])
      ? []
      : [{ do: 'change', what: 'form', set: { [key]: value } }],
  )
}

/** Renames at once; see `renameEdits`. */
export const renameCode = (form: Form, address: Address, code: string): Form =>
  applyEdits(form, renameEdits(form, address, code)).form

import { isFormat, splitQuotes, FORMATS } from '../../form/quotes'
import { isTemplateFormat } from '../../form/tags'
import { nearest } from '../../expressions/near'
import { standpointInside } from '../../form/scope'
import { textsAt, withText } from '../../form/texts'
import type { Closing } from '../../form/definition'
import { deliveryTexts, type Delivery } from '../../form/deliveries'
import type { FormDocument } from '../../form/documents'
import type { PlaceOf } from '../../form/walk'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import { documentPart, documentsOf, nameOf } from './documentTags'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'quote-error', severity: 'fault' } as const

export const quoteError: Check = {
  ...kind,
  about: 'A label, note or message quotes something that can’t be read, or with a format that there is not.',
  raises: example(
    section('boat', [
      text('owner'),
      { kind: 'note', code: 'hello', text: 'Good day, {{ ownr }}.' },
      yesNo('more'),
    ]),
  ),
  spares: example(
    section('boat', [
      text('owner'),
      { kind: 'note', code: 'hello', text: 'Good day, {{ owner }}.' },
      yesNo('more'),
    ]),
  ),
  run: inquiry => [
    ...inquiry.model.plan.places.flatMap(place => textsAt(place).flatMap(found => quotesIn(inquiry, found))),
    ...(inquiry.form.closings ?? []).flatMap((closing, index) => inClosing(inquiry, closing, index)),
    ...(inquiry.form.deliveries ?? []).flatMap((delivery, index) => inDelivery(inquiry, delivery, index)),
    ...inPayment(inquiry),
    ...documentsOf(inquiry).flatMap(({ document, index }) => inFileName(inquiry, document, index)),
  ],
}

/** What is quoted in a closing, which speaks from the end of the form. */
function inClosing(inquiry: Inquiry, { code, title, text: said }: Closing, index: number): Finding[] {
  const place = inquiry.model.plan.sections.at(-1)?.place
  if (!place) return []
  const of = { name: `The closing “${title ?? code}”`, part: partAt(place, 'closing', index) }
  return [title ?? '', said ?? ''].flatMap(words => atTheEnd(inquiry, place, words, of))
}

/** The same of what is done by itself. */
function inDelivery(inquiry: Inquiry, delivery: Delivery, index: number): Finding[] {
  const place = inquiry.model.plan.sections.at(-1)?.place
  if (!place) return []
  const name = `“${delivery.title || delivery.code}”, which is done by itself,`
  const of = { name, part: partAt(place, 'delivery', index) }
  return deliveryTexts(delivery).flatMap(({ text: words }) => atTheEnd(inquiry, place, words, of))
}

/** The same of what is to be paid. */
function inPayment(inquiry: Inquiry): Finding[] {
  const place = inquiry.model.plan.sections.at(-1)?.place
  const { payment } = inquiry.form
  if (!place || !payment) return []
  return atTheEnd(inquiry, place, payment.title, { name: 'The payment', part: partAt(place, 'payment') })
}

/** What is quoted in the name of a document’s file. */
function inFileName(inquiry: Inquiry, document: FormDocument, index: number): Finding[] {
  const [part] = documentPart(inquiry, index)
  const place = inquiry.model.plan.sections.at(-1)?.place
  if (!place || !part) return []
  return atTheEnd(inquiry, place, document.fileName, { name: `${nameOf(document)} in its file’s name`, part })
}

function atTheEnd(
  inquiry: Inquiry,
  place: PlaceOf<'section'>,
  words: string,
  { name, part }: { name: string; part: ReturnType<typeof partAt> },
): Finding[] {
  return splitQuotes(words).flatMap((piece): Finding[] => {
    if (piece.kind === 'words') return []
    const { syntax, problems } = inquiry.model.plan.names.readQuote(piece.source, place)
    const why = syntax?.message ?? problems[0]?.sentence
    const format = formatProblem(piece.format)
    if (why === undefined && format === null) return []
    const sentence = why === undefined ? `${name} ${format}` : `${name} quotes “${piece.source}”: ${why}`
    return [finding(kind, place, sentence, { conflict: [part], marked: markedIn(words, piece) })]
  })
}

/** A quote marked in its text. */
const markedIn = (text: string, { from, source }: { from: number; source: string }) => ({
  text,
  from,
  to: from + source.length,
})

function quotesIn(inquiry: Inquiry, found: ReturnType<typeof textsAt>[number]): Finding[] {
  const { place, text: whole, entry } = found
  const stand = entry && place.kind === 'group' ? standpointInside(place) : place
  return splitQuotes(whole).flatMap((piece): Finding[] => {
    if (piece.kind === 'words') return []
    const { syntax, problems } = inquiry.model.plan.names.readQuote(piece.source, stand)
    const [problem] = syntax
      ? [{ from: syntax.from, to: syntax.to, sentence: syntax.message, instead: syntax.instead }]
      : problems
    const conflict = [partAt(place)]
    if (problem) {
      const mended =
        problem.instead === null || problem.instead.includes('…')
          ? null
          : whole.slice(0, piece.from + problem.from) + problem.instead + whole.slice(piece.from + problem.to)
      return [
        finding(kind, place, `${quotedName(place)} quotes “${piece.source}”: ${problem.sentence}`, {
          conflict,
          marked: { text: whole, from: piece.from + problem.from, to: piece.from + problem.to },
          mend:
            mended === null ? null : { words: `Write ${problem.instead}`, edits: [withText(found, mended)] },
        }),
      ]
    }
    const format = formatProblem(piece.format)
    if (format === null) return []
    const sentence = `${quotedName(place)} ${format}`
    return [finding(kind, place, sentence, { conflict, marked: markedIn(whole, piece) })]
  })
}

/** What is wrong with a format, as the end of a sentence; null for nothing. */
function formatProblem(format: string | null): string | null {
  if (format === null || isFormat(format)) return null
  if (isTemplateFormat(format))
    return `quotes with the format “${format}”, which only templates of documents have.`
  const near = nearest(format, FORMATS)
  const instead = near ? `Did you mean “${near}”?` : `There is: ${FORMATS.join(', ')}.`
  return `quotes with the format “${format}”, which there is not. ${instead}`
}

import { namesIn } from '../expressions/tree'
import { BOOLEAN } from '../expressions/types'
import type { Plan } from '../fill/planned'
import type { DocumentTag, FormDocument } from '../form/documents'
import { splitQuotes } from '../form/quotes'
import { standpointAtEnd } from '../form/scope'
import type { Turn } from '../form/turns'
import type { Place } from '../form/walk'
import { accessViewOf, maySee } from '../parties/access'
import { standsOf, type TagStand } from './checkTags'
import { tagsOf } from './templateTags'

/** Everything of a form that a document tells of: what its tags quote, ask and go over, and what its file’s name quotes; each once. */
export function placesTold(plan: Plan, { template, fileName }: FormDocument): Place[] {
  const tags = tagsOf(template)
  const stands = standsOf(plan, tags)
  const inTags = tags.flatMap((tag, i) => {
    const here = stands[i]
    return here ? namesOf(plan, tag, here) : []
  })
  const places = [...inTags, ...namesQuoted(plan, fileName)].flatMap(name => placeOf(plan, name) ?? [])
  return [...new Set(places)]
}

/** The names in what a text quotes of a response as a whole. */
export const namesQuoted = (plan: Plan, text: string): string[] =>
  splitQuotes(text).flatMap(piece => {
    if (piece.kind === 'words') return []
    const { expr } = plan.names.readQuote(piece.source, standpointAtEnd(plan.form))
    return expr ? namesIn(expr) : []
  })

/** Of what a document tells of, the first that a turn never sees: its party must not get the document then. Null where it sees all; `turn` null: the one respondent. */
export function findUnseen(plan: Plan, document: FormDocument, turn: Turn | null): Place | null {
  const view = accessViewOf(plan.form, plan.places, turn)
  return placesTold(plan, document).find(place => !maySee(view, place)) ?? null
}

/** Whether a document is offered to the party of a turn; null: to the one respondent. */
export const isOffered = ({ offered }: FormDocument, turn: Turn | null): boolean =>
  offered === true || (turn !== null && offered?.includes(turn.party) === true)

const placeOf = (plan: Plan, name: string): Place | undefined =>
  plan.byCode.get(name)?.place ?? plan.groups.get(name)?.place

type Told = Pick<DocumentTag, 'is'> & { source?: string }

function namesOf(plan: Plan, { is, source }: Told, { stand }: TagStand): string[] {
  if (source === undefined) return []
  if (is === 'each') return [source]
  const reading =
    is === 'when' ? plan.names.read(source, stand, BOOLEAN) : plan.names.readQuote(source, stand)
  return reading.expr ? [...namesIn(reading.expr)] : []
}

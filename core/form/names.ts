import { ExpressionError, parseCached } from '../expressions/parse'
import type { PointedKind } from '../expressions/pointing'
import { sentenceOf, type Segment, type Wording } from '../expressions/sentence'
import type { Form } from './definition'
import { FormNames } from './scope'
import { listStanding } from './standing'
import type { ValueType } from '../expressions/types'
import type { Place, PlaceOf } from './walk'

/** How questions and choices are called in sentences about a form. */
export function wordingOf(form: Form, places: readonly Place[]): Wording {
  const found = new Map<string, PlaceOf<'question'> | PlaceOf<'group'>>()
  for (const p of places)
    if ((p.kind === 'question' || p.kind === 'group') && !found.has(p.code)) found.set(p.code, p)
  const types = new FormNames(form, places)
  return {
    question: code => {
      const place = found.get(code)
      return (
        (place?.kind === 'question' ? place.node.label : place?.node.title)?.replaceAll(/\{\{|\}\}/g, '') ||
        undefined
      )
    },
    choice: (code, choice) => {
      const choices = choicesIn(types.typeOf(code))
      return choices?.get(choice)
    },
  }
}

/** The choices of a type: of a code, of the items of a list. */
function choicesIn(type: ValueType): ReadonlyMap<string, string> | undefined {
  if (type.kind === 'code') return type.choices
  return type.kind === 'list' ? choicesIn(type.of) : undefined
}

/** A rule's text as a sentence; null when it can't be read. */
export function ruleSentence(text: string, words: Wording): Segment[] | null {
  try {
    return sentenceOf(parseCached(text), words)
  } catch (error) {
    if (error instanceof ExpressionError) return null
    throw error
  }
}

/** A question that a rule may point at. */
export interface Pointable {
  code: string
  label: string
  number: string
  kind: PointedKind
  choices: { code: string; label: string }[]
  /** Of a repeating group: the questions of one entry. */
  members?: Pointable[]
}

const KINDS: Partial<Record<ValueType['kind'], PointedKind>> = {
  code: 'code',
  boolean: 'boolean',
  number: 'number',
  date: 'date',
  time: 'time',
  dateTime: 'dateTime',
  text: 'text',
}

/** How the pointing builder takes a type; undefined for what is not pointed at. */
export function pointedKind(type: ValueType): PointedKind | undefined {
  if (type.kind !== 'list') return KINDS[type.kind]
  return type.of.kind === 'code' ? 'codes' : 'entries'
}

/**
 * The questions and repeating groups that a rule at a place may use: earlier ones, those of its section, in an entry its own.
 * @param except what the rule decides about, where that can't depend on itself or on what stands in it
 */
export function pointableQuestions(
  form: Form,
  places: readonly Place[],
  at: Place,
  except: Place | null = null,
): Pointable[] {
  const types = new FormNames(form, places)
  const scope = types.at(at)
  return places.flatMap((p): Pointable[] => {
    if (p.section > at.section || p.kind === 'section' || p.kind === 'note') return []
    if (except && standsIn(p, except)) return []
    if (p.kind === 'group' && !p.node.repeat) return []
    const found = scope.lookup(p.code)
    if (!found || found.within) return []
    const own = pointable(p, found.type)
    if (!own || p.kind !== 'group') return own ? [own] : []
    const members = places.flatMap(m =>
      m.kind === 'question' && m.entryOf?.address === p.address
        ? (pointable(m, types.at(m).lookup(m.code)?.type) ?? [])
        : [],
    )
    return [{ ...own, members }]
  })
}

/** The standing values as things to be quoted; those whose name a question has are left out. */
export const quotableStanding = (places: readonly Place[]): Pointable[] =>
  listStanding()
    .filter(({ source }) => !places.some(p => p.kind !== 'section' && source.startsWith(`${p.code}.`)))
    .map(({ source, words }) => ({ code: source, label: words, number: '', kind: 'text', choices: [] }))

/** Whether a place is another, or stands in it. */
const standsIn = (place: Place, other: Place): boolean =>
  place.address === other.address ||
  place.groups.some(g => g.address === other.address) ||
  (other.kind === 'section' && place.section === other.section)

function pointable(place: PlaceOf<'question' | 'group'>, type: ValueType | undefined): Pointable | null {
  const kind = type && pointedKind(type)
  if (!kind) return null
  const label = place.kind === 'question' ? place.node.label : place.node.title
  const choices = [...(choicesIn(type) ?? [])].map(([code, l]) => ({ code, label: l }))
  return { code: place.code, label: label || place.code, number: place.number, kind, choices }
}

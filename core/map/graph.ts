import type { Form } from '../form/definition'
import { DONE, type Turn } from '../form/turns'
import { handOffsAfter, handsOffFor, leaderOf } from '../form/alongside'
import { FINISH } from '../form/finish'
import { skipTarget } from '../form/skips'
import { placeName, type Address, type Place, type PlaceOf } from '../form/walk'

/** Something in the map: a section, several in a straight run, a turn, or the end. */
export interface MapNode {
  id: string
  kind: 'section' | 'run' | 'turn' | 'end'
  /** Where it is written; of a run its first section. Null for turns and the end. */
  address: Address | null
  number: string
  title: string
  /** How many questions are in it. */
  questions: number
  /** The text of its shown-when rule. */
  rule: string | null
  /** The sections that it stands for, by position. */
  sections: readonly number[]
  /** Whose it is, by position among the parties; null in a form without turns. */
  lane: number | null
}
/** A way from one to another. */
export interface MapEdge {
  id: string
  from: string
  to: string
  /** `over`: from a section with a rule that has no way to the next one of its own, when it is passed over. `alongside`: to a turn that is open at once with this one. */
  kind: 'next' | 'route' | 'skip' | 'over' | 'handOff' | 'alongside'
  /** The text of the condition; null where it is taken whenever nothing above it is. */
  when: string | null
  /** The question that a skip leads on from. */
  via: string | null
  /** Where it is written. */
  at: Address | null
  /** Its place among the exits there, as written; null for the next section. */
  index: number | null
}
export interface MapGraph {
  nodes: readonly MapNode[]
  edges: readonly MapEdge[]
}

export const END = 'end'
export const sectionId = (index: number): string => `section-${index}`

/** The sections of a form with every way between them: routes, skips that leave their section, and else the next one. */
export function listSectionGraph(form: Form, places: readonly Place[]): MapGraph {
  const sections = places.filter((p): p is PlaceOf<'section'> => p.kind === 'section')
  const nodes = sections.map((place): MapNode => ({
    id: sectionId(place.section),
    kind: 'section',
    address: place.address,
    number: place.number,
    title: placeName(place),
    questions: places.filter(p => p.kind === 'question' && p.section === place.section).length,
    rule: place.node.shownWhen ?? null,
    sections: [place.section],
    lane: laneOf(form, place.code),
  }))
  const end = endNode(nodes, 'Finish')
  const idOf = (section: number) => (section < sections.length ? sectionId(section) : END)
  const edges = sections.flatMap(place => exitsOf(place, places, sections, idOf))
  return { nodes: [...nodes, end], edges }
}

const endNode = (nodes: readonly MapNode[], title: string): MapNode => ({
  id: END,
  kind: 'end',
  address: null,
  number: '',
  title,
  questions: 0,
  rule: null,
  sections: [],
  lane: nodes.at(-1)?.lane ?? null,
})

/** The party whose turn fills a section first. */
function laneOf(form: Form, code: string): number | null {
  const turn = form.turns?.find(t => t.access[code] === 'fills')
  const lane = form.parties?.findIndex(p => p.code === turn?.party) ?? -1
  return lane < 0 ? null : lane
}

function exitsOf(
  place: PlaceOf<'section'>,
  places: readonly Place[],
  sections: readonly PlaceOf<'section'>[],
  idOf: (section: number) => string,
): MapEdge[] {
  const from = sectionId(place.section)
  const skips = places.flatMap(p => (p.kind === 'question' && p.section === place.section ? [p] : []))
  const skipped = skips.flatMap(question => skipEdges(question, places, from, idOf))
  const routes = (place.node.routes ?? []).flatMap(({ when, to }, index): MapEdge[] => {
    const target = sections.find(s => s.code === to)
    // One that leads back or nowhere is a fault, and no way.
    if (to !== FINISH && (!target || target.section <= place.section)) return []
    const id = `${place.address}:${index}`
    const at = place.address
    return [
      {
        id,
        from,
        to: target ? idOf(target.section) : END,
        kind: 'route',
        when: when ?? null,
        via: null,
        at,
        index,
      },
    ]
  })
  const isLed = routes.some(r => r.when === null)
  if (isLed && place.node.shownWhen === undefined) return [...skipped, ...routes]
  const next: MapEdge = {
    ...{ id: `${place.address}:next`, from, to: idOf(place.section + 1), kind: isLed ? 'over' : 'next' },
    ...{ when: null, via: null, at: place.address, index: null },
  }
  return [...skipped, ...routes, next]
}

function skipEdges(
  place: PlaceOf<'question'>,
  places: readonly Place[],
  from: string,
  idOf: (section: number) => string,
): MapEdge[] {
  const skips = 'skips' in place.node ? (place.node.skips ?? []) : []
  return skips.flatMap((skip, index): MapEdge[] => {
    const target = skipTarget(places, place, skip)
    if (typeof target === 'string' || target.section === place.section) return []
    const id = `${place.address}:${index}`
    const to = idOf(target.section)
    return [
      {
        id,
        from,
        to,
        kind: 'skip',
        when: skip.when ?? null,
        via: placeName(place),
        at: place.address,
        index,
      },
    ]
  })
}

/** The turns of a form with every way between them. */
export function listTurnGraph(form: Form, nameOf: (turn: Turn) => string): MapGraph {
  const turns = form.turns ?? []
  const idOf = ({ code }: Turn) => `turn-${code}`
  /** What a hand-off opens: the turn, or the one that leads where several are opened at once. */
  const targetOf = (code: string) => {
    const turn = turns.find(t => t.code === code)
    return turn ? idOf(leaderOf(form, turn)) : END
  }
  const nodes = turns.map((turn, i): MapNode => ({
    id: idOf(turn),
    kind: 'turn',
    address: null,
    number: String(i + 1),
    title: nameOf(turn),
    questions: 0,
    rule: null,
    sections: form.sections.flatMap((s, n) => (turn.access[s.code] === 'fills' ? [n] : [])),
    lane: form.parties?.findIndex(p => p.code === turn.party) ?? null,
  }))
  const edges = turns.flatMap((turn, i): MapEdge[] => {
    const from = idOf(turn)
    const following = turns[i + 1]
    const next = { from, to: following ? idOf(following) : END, when: null, via: null, at: null, index: null }
    if (handsOffFor(form, turn) === null) return [{ ...next, id: `${from}:alongside`, kind: 'alongside' }]
    const written = handOffsAfter(form, turn).filter(h => h.to === DONE || targetOf(h.to) !== END)
    const handed = written.map((h, index): MapEdge => ({
      ...{ id: `${from}:${index}`, from, to: targetOf(h.to), kind: 'handOff', when: h.when ?? null },
      ...{ via: null, at: null, index },
    }))
    if (handed.some(h => h.when === null)) return handed
    return [...handed, { ...next, id: `${from}:next`, kind: 'next' }]
  })
  return { nodes: [...nodes, endNode(nodes, 'Done')], edges }
}

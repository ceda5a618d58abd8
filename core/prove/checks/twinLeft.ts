import { namesIn } from '../../expressions/tree'
import { placeName, type Place } from '../../form/walk'
import { withRule } from '../../form/rules'
import { print } from '../../expressions/print'
import { replaceParts } from '../../expressions/replace'
import type { Plan } from '../../fill/planned'
import type { ReadRule } from '../model/readRule'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { areSiblings } from './branches'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'twin-left', severity: 'risk' } as const
const applicants = (rule: string) =>
  example(
    section('first', [
      yesNo('a1_limited'),
      text('a1_end', { shownWhen: 'a1_limited = true' }),
      text('a1_name'),
    ]),
    section('second', [yesNo('a2_limited'), text('a2_end', { shownWhen: rule }), text('a2_name')]),
  )
/** Blocks of fewer questions may be alike by chance. */
const FEWEST = 2

export const twinLeft: Check = {
  ...kind,
  about: 'A copied part still has a rule about the part that it was copied from.',
  raises: applicants('a1_limited = true'),
  spares: applicants('a2_limited = true'),
  run: inquiry => twinsOf(inquiry).flatMap(pair => leftIn(inquiry, pair)),
}

/** Two parts of a form of which one is a copy of the other: what corresponds to each question of the first. */
interface Twins {
  first: Place
  second: Place
  /** By code of the first: the code of its counterpart. */
  counterpart: ReadonlyMap<string, string>
  /** The rules of the second, and of what stands in it. */
  rules: ReadRule[]
}

/** Pairs of blocks that a rule of the second connects with the first. */
function twinsOf({ model: { plan, rules } }: Inquiry): Twins[] {
  const parts = new Map<Place, ReadonlyMap<string, Place>>()
  const partsOf = (block: Place) => {
    const known = parts.get(block) ?? uniqueByStem(insideOf(plan.places, block))
    parts.set(block, known)
    return known
  }
  const found = new Map<string, Twins | null>()
  for (const rule of rules) {
    if (!rule.expr || rule.kind === 'promise') continue
    const own = blocksAround(plan, rule.place)
    for (const name of namesIn(rule.expr)) {
      const named = plan.byCode.get(name)?.place
      for (const first of named ? blocksAround(plan, named) : [])
        for (const second of own) {
          if (first.order >= second.order || !areSiblings(first, second)) continue
          const key = `${first.address} ${second.address}`
          const known = found.get(key)
          if (known === undefined) {
            const counterpart = counterparts(partsOf(first), partsOf(second))
            found.set(key, counterpart && { first, second, counterpart, rules: [rule] })
          } else if (known && !known.rules.includes(rule)) known.rules.push(rule)
        }
    }
  }
  return [...found.values()].filter(twins => twins !== null)
}

/** The section and the groups in which something stands, itself included. */
function blocksAround({ sections }: Plan, place: Place): Place[] {
  const section = sections[place.section]?.place
  const own = place.kind === 'group' ? [place] : []
  return [...(section ? [section] : []), ...place.groups, ...own]
}

const insideOf = (places: readonly Place[], block: Place): Place[] =>
  places.filter(p => {
    if (p === block || p.kind === 'section') return false
    return block.kind === 'section' ? p.section === block.section : p.groups.some(g => g === block)
  })

/** What a thing is called, with numbers and words that count left out: “First applicant’s name” and “Second applicant’s name” are alike. */
function stem(place: Place): string {
  const { node } = place
  const type = node && 'type' in node ? node.type : place.kind
  return `${type} ${placeName(place).toLowerCase().replace(COUNTING, '#')}`
}
const COUNTING = /\b(?:first|second|third|fourth|other|one|two|three|four|1st|2nd|3rd|4th)\b|\d+/g

/** By stem, what a block has just one of. */
function uniqueByStem(places: readonly Place[]): Map<string, Place> {
  const byStem = new Map<string, Place | null>()
  for (const place of places.filter(p => p.kind !== 'note'))
    byStem.set(stem(place), byStem.has(stem(place)) ? null : place)
  return new Map([...byStem].flatMap(([key, place]) => (place ? [[key, place] as const] : [])))
}

/** What in one block corresponds to what in another, by type and words; null where too little does. */
function counterparts(
  first: ReadonlyMap<string, Place>,
  second: ReadonlyMap<string, Place>,
): Map<string, string> | null {
  const pairs = [...first].flatMap(([key, { code }]): [string, string][] => {
    const other = second.get(key)
    return other ? [[code, other.code]] : []
  })
  return pairs.length >= FEWEST ? new Map(pairs) : null
}

function leftIn({ form }: Inquiry, { first, second, counterpart, rules }: Twins): Finding[] {
  return rules.flatMap((rule): Finding[] => {
    const left = namesIn(rule.expr ?? NOTHING).filter(name => counterpart.has(name))
    const [name] = left
    if (name === undefined || isOnPurpose(rule, left, counterpart)) return []
    const mended = adapted(rule, counterpart)
    return [
      finding(
        kind,
        rule.place,
        `A rule of ${quotedName(rule.place)} asks for “${name}” of ${quotedName(first)}, though ${quotedName(second)} has its own “${counterpart.get(name) ?? ''}”: left over from a copy?`,
        {
          rule: rule.id,
          conflict: [partAt(rule.place, rule.kind, rule.index), partAt(first)],
          mend: { words: `Write ${mended}`, edits: [withRule(form, rule, mended)] },
        },
      ),
    ]
  })
}

const NOTHING = { kind: 'null', from: 0, to: 0 } as const

/** A rule that names both counterparts compares them; that is no slip. */
const isOnPurpose = (
  rule: ReadRule,
  left: readonly string[],
  counterpart: ReadonlyMap<string, string>,
): boolean => {
  const names = new Set(namesIn(rule.expr ?? NOTHING))
  return left.some(name => names.has(counterpart.get(name) ?? ''))
}

function adapted(rule: ReadRule, counterpart: ReadonlyMap<string, string>): string {
  if (!rule.expr) return rule.text
  return print(
    replaceParts(rule.expr, node => {
      const other = node.kind === 'name' ? counterpart.get(node.name) : undefined
      return node.kind === 'name' && other !== undefined ? { ...node, name: other } : null
    }),
  )
}

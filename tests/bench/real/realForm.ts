import { seededRandom } from '../../../core/fill/draw'
import type { Form, Promised, Section } from '../../../core/form/definition'
import { listPlaces } from '../../../core/form/walk'
import { boat } from './boat'
import { insurance } from './insurance'
import type { Details, Making, Part } from './part'
import { person } from './person'
import { stay } from './stay'
import { works } from './works'

const MODULES: readonly Making[] = [person, boat, works, stay, insurance]

const PROMISE_EVERY = 50
const NEAR = 4

const COASTS = ['north', 'east', 'isles']
const harbours = COASTS.flatMap(coast =>
  [1, 2, 3].map(n => ({ code: `${coast}_${n}`, label: `${coast} ${n}`, coast })),
)
const berths = harbours.flatMap(h =>
  [1, 2, 3].map(n => ({ code: `${h.code}_${n}`, label: `Berth ${n}`, harbour: h.code })),
)

/** Conditions on what a part asks of everybody, by the part's name for it. */
const GATES: readonly ((code: (name: string) => string) => string)[] = [
  c => `${c('reach')} = "mail"`,
  c => `${c('hull')} in ["wood", "steel"]`,
  c => `list contains(${c('jobs')}, "antifouling")`,
  c => `${c('power')} = true`,
  c => `${c('insured')} = true`,
]

/**
 * A form put together as people write them: parts about persons, boats, works, stays and insurance with cascades, entries,
 * totals, dates and checks, asked about by later parts, in three turns. The same seed gives the same form.
 */
export function realForm(questions: number, seed = 11): Form {
  const next = seededRandom(seed)
  const sections: Section[] = []
  const offered: Promised[] = []
  const gates: { part: number; holds: string }[] = []
  let at = 0
  // A part asks about others than its own kind.
  const near = () => gates.slice(-NEAR).filter(g => g.part !== at)
  const gate = () => near()[Math.floor(next() * near().length)]?.holds ?? 'true'
  const between = (least: number, most: number) => least + Math.floor(next() * (most - least + 1))
  let asked = 0
  for (let n = 1; asked < questions; n++) {
    at = (n - 1) % MODULES.length
    const code = (name: string) => `${name}_${n}`
    const part = partOf(at, { code, gate, between })
    if (n > MODULES.length && next() < 0.3) closeOff(part.sections, gate())
    else gates.push({ part: at, holds: GATES[at]?.(code) ?? 'true' })
    sections.push(...part.sections)
    offered.push(...part.promises)
    asked += countQuestions(part.sections)
  }
  const promises = offered.filter((_, i) => i % Math.ceil((offered.length * PROMISE_EVERY) / asked) === 0)
  return {
    tobbin: 2,
    code: 'real',
    title: 'A form of many parts',
    lists: [
      { code: 'coasts', rows: COASTS.map(code => ({ code, label: code })) },
      { code: 'harbours', columns: ['coast'], rows: harbours },
      { code: 'berths', columns: ['harbour'], rows: berths },
    ],
    sections,
    ...turnsOver(sections),
    promises,
  }
}

function partOf(at: number, details: Details): Part {
  const making = MODULES[at]
  if (!making) throw new Error(`There is no part ${at}.`)
  return making(details)
}

/** Asks for a part only where a condition holds. */
function closeOff(sections: Section[], condition: string): void {
  for (const section of sections) {
    section.shownWhen = section.shownWhen ? `${condition} and ${section.shownWhen}` : condition
  }
}

function countQuestions(sections: Section[]): number {
  const form: Form = { tobbin: 2, code: 'part', title: 'Part', sections }
  return listPlaces(form).filter(p => p.kind === 'question').length
}

/** Three turns: the owner's, the yard's where there is something to do, the office's. */
function turnsOver(sections: readonly Section[]): Pick<Form, 'parties' | 'turns'> {
  const third = Math.ceil(sections.length / 3)
  const access = (from: number, to: number) =>
    Object.fromEntries(
      sections.map((s, i) => [s.code, i >= from && i < to ? ('fills' as const) : ('reads' as const)]),
    )
  return {
    parties: [
      { code: 'owner', name: 'Boat owner' },
      { code: 'yard', name: 'Yard' },
      { code: 'office', name: 'Harbour office', office: true },
    ],
    turns: [
      { code: 'request', party: 'owner', by: 'link', access: access(0, third) },
      {
        code: 'yard_turn',
        party: 'yard',
        by: { person: 'yard@wherry.example' },
        access: access(third, 2 * third),
      },
      {
        code: 'office_turn',
        party: 'office',
        by: { team: ['office@wherry.example'] },
        access: access(2 * third, sections.length),
      },
    ],
  }
}

import type { Form, Item, Section } from '../../core/form/definition'
import { applyEdits, type Edit } from '../../core/form/edits'
import type { Finding } from '../../core/prove/finding'
import { Memory } from '../../core/prove/goals/memory'
import { prove } from '../../core/prove/prove'
import { seededRandom } from '../../core/fill/draw'

const PER_SECTION = 20
const HULLS = ['wood', 'steel', 'grp', 'alu', 'composite']

const MOST_ROUNDS = 10

/** A form of any size in which the prover finds no fault and no risk: what it finds in the random one is mended by taking the rules away. */
export function largeForm(questions: number, seed = 5): Form {
  let form = randomForm(questions, seed)
  const memory = new Memory()
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const findings = prove(form, '2026-11-24', memory).findings.filter(f => f.severity !== 'advice')
    if (findings.length === 0) return form
    form = applyEdits(form, findings.flatMap(mending)).form
  }
  throw new Error(`The form of ${questions} questions can't be made clean.`)
}

function without(kind: Finding['conflict'][number]['kind']): Record<string, null> {
  if (kind === 'place') return {}
  return { [kind === 'route' ? 'routes' : kind]: null }
}

const SLIPS: ReadonlySet<string> = new Set(['open-gate', 'total-goes-blank', 'none-with-others'])

/** Takes away the rule that a finding speaks of; for a section that nothing leads to, the rules that lead past it. */
function mending(finding: Finding): Edit[] {
  // A slip that is not one of rules is mended as the finding says.
  if (SLIPS.has(finding.code) && finding.mend) return [...finding.mend.edits]
  const own: Edit[] =
    finding.address === null ? [] : [{ do: 'change', what: finding.address, set: { shownWhen: null } }]
  return [
    ...own,
    ...finding.conflict.map((part): Edit => ({ do: 'change', what: part.address, set: without(part.kind) })),
  ]
}

const DETAILS = {
  text: () => ({}),
  integer: () => ({ min: 0, max: 100 }),
  decimal: (code: string) => ({
    ...{ min: 0, max: 100, decimals: 2 },
    validWhen: [{ rule: `${code} < 90`, message: 'Too much.' }],
  }),
  yesNo: () => ({}),
  choice: () => ({ options: HULLS.map(c => ({ code: c, label: c })) }),
  date: () => ({}),
} as const
const TYPES = Object.keys(DETAILS) as (keyof typeof DETAILS)[]

/** Sections of twenty questions of all types, half of them with rules over earlier ones, some groups, checks and routes. */
function randomForm(questions: number, seed: number): Form {
  const next = seededRandom(seed)
  const asked: { code: string; type: string }[] = []
  const pick = <T>(items: readonly T[]): T | undefined => items[Math.floor(next() * items.length)]
  const leaf = (): string => {
    const near = asked.slice(-60)
    const q = pick(near)
    if (!q) return 'true'
    if (q.type === 'yesNo') return `${q.code} = ${next() < 0.5}`
    if (q.type === 'choice') return `${q.code} in ["${pick(HULLS)}", "${pick(HULLS)}"]`
    if (q.type === 'date') return `${q.code} >= @"2026-0${1 + Math.floor(next() * 9)}-01"`
    if (q.type === 'text') return `${q.code} != null`
    return `${q.code} > ${Math.floor(next() * 50)}`
  }
  const rule = () => (next() < 0.5 ? leaf() : `${leaf()} ${next() < 0.5 ? 'and' : 'or'} ${leaf()}`)
  const question = (i: number): Item => {
    const code = `q${i}`
    const type = TYPES[i % TYPES.length] ?? 'text'
    const base = {
      kind: 'question' as const,
      code,
      label: `Question ${i}`,
      ...(next() < 0.5 && asked.length > 5 ? { shownWhen: rule() } : {}),
      ...(next() < 0.4 ? { required: true as const } : {}),
    }
    asked.push({ code, type })
    return { ...base, type, ...DETAILS[type](code) } as Item
  }
  const count = Math.ceil(questions / PER_SECTION)
  const sections = Array.from({ length: count }, (_, s): Section => {
    const around = s > 0 ? leaf() : null
    const items = Array.from({ length: Math.min(PER_SECTION, questions - s * PER_SECTION) }, (_, i) =>
      question(s * PER_SECTION + i),
    )
    const group: Item = {
      kind: 'group',
      code: `g${s}`,
      title: 'Group',
      ...(around === null ? {} : { shownWhen: around }),
      items: items.slice(10),
    }
    const to = `s${s + 2}`
    return {
      code: `s${s}`,
      title: `Section ${s}`,
      items: items.length > 10 ? [...items.slice(0, 10), group] : items,
      ...(s % 4 === 1 && s + 2 < count ? { routes: [{ when: rule(), to }] } : {}),
    }
  })
  return { tobbin: 2, code: 'large', title: 'Large', sections }
}

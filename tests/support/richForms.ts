import { seededRandom } from '../../core/fill/draw'
import type { Form, Item, Section } from '../../core/form/definition'
import type { Skip } from '../../core/form/fields'

const COASTS = ['north', 'east', 'south']
const OPTIONS = ['a', 'b', 'c', 'd']
const labelled = (codes: readonly string[]) => codes.map(code => ({ code, label: code.toUpperCase() }))

/** Every other scale and grid may be said not to apply: without dice, for the sake of known seeds. */
const leftOut = (d: Drawing) => (d.count % 2 === 0 ? { notApplicable: true as const } : {})
/** A maker of one item, with a test of its answer that rules may use. */
type Maker = (d: Drawing, code: string) => { item: Item; test: () => string }

/** What is drawn by chance, and what was asked so far. */
class Drawing {
  readonly next: () => number
  readonly asked: { code: string; test: () => string }[] = []
  count = 0
  constructor(seed: number) {
    this.next = seededRandom(seed)
  }

  chance(p: number): boolean {
    return this.next() < p
  }

  pick<T>(items: readonly T[]): T {
    return items[Math.floor(this.next() * items.length)] ?? items[0]!
  }

  leaf(): string {
    return this.asked.length === 0 ? 'true' : this.pick(this.asked).test()
  }

  rule(): string {
    const [a, b] = [this.leaf(), this.leaf()]
    return this.pick([
      a,
      a,
      `not(${a})`,
      `(${a}) and (${b})`,
      `(${a}) or (${b})`,
      `if ${a} then ${b} else not(${b})`,
      `any([${a}, ${b}])`,
      `all([${a}, ${b}])`,
    ])
  }

  rules() {
    return {
      ...(this.chance(0.45) ? { shownWhen: this.rule() } : {}),
      ...this.required(),
      ...(this.chance(0.08) ? { readOnly: this.rule() } : {}),
    }
  }

  private required() {
    if (this.chance(0.25)) return { required: true as const }
    return this.chance(0.15) ? { required: this.rule() } : {}
  }

  note(code: string): Item {
    return {
      kind: 'note',
      code,
      text: `Noted: {{ ${this.pick(this.asked)?.code ?? '1'} }}.`,
      ...(this.chance(0.5) ? { shownWhen: this.rule() } : {}),
    }
  }
}

const MAKERS: Maker[] = [
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'yesNo',
      ...d.rules(),
      ...(d.chance(0.2) ? { default: 'true' } : {}),
    },
    test: () => `${code} = ${d.chance(0.5)}`,
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: `${code} of {{ ${d.pick(d.asked)?.code ?? '1'} }}`,
      type: 'choice',
      options: OPTIONS.map(o => ({
        code: o,
        label: o,
        points: d.next() < 0.5 ? 2 : 5,
        ...(d.asked.length > 0 && d.chance(0.15) ? { shownWhen: d.rule() } : {}),
      })),
      ...(d.chance(0.3) ? { writeIn: true as const } : {}),
      ...d.rules(),
    },
    test: () => d.pick([`${code} in ["a", "b"]`, `${code} != null`, `${code}.points > 3`]),
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'choices',
      options: labelled(OPTIONS).map(o => (d.chance(0.1) ? { ...o, alone: true } : o)),
      ...(d.chance(0.3) ? { most: 2 } : {}),
      ...(d.chance(0.2) ? { least: 2 } : {}),
      ...d.rules(),
    },
    test: () =>
      d.pick([`list contains(${code}, "${d.pick(OPTIONS)}")`, `count(${code}) >= 2`, `${code} = null`]),
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'integer',
      min: 0,
      max: 20,
      ...d.rules(),
      ...(d.chance(0.2) ? { validWhen: [{ rule: `${code} != 13`, message: `Not {{ ${code} }}.` }] } : {}),
      ...(d.chance(0.1) ? { validWhen: [{ rule: d.rule(), message: 'Not with that.' }] } : {}),
      ...(d.chance(0.15) ? { atMost: `if ${d.leaf()} then 18 else 20` } : {}),
    },
    test: () => `${code} ${d.pick(['<', '>=', '='])} ${Math.floor(d.next() * 20)}`,
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'money', currency: 'EUR', min: 0, ...d.rules() },
    test: () => `${code} > ${Math.floor(d.next() * 40)}.50`,
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'text',
      ...d.rules(),
      ...(d.chance(0.2) ? { default: '"oak"' } : {}),
    },
    test: () => d.pick([`${code} = "oak"`, `string length(${code}) > 4`, `matches(${code}, "^o")`]),
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'date', ...d.rules() },
    test: () =>
      d.pick([
        `${code} < today()`,
        `${code} >= @"2026-05-01"`,
        `years and months duration(${code}, today()).years >= 18`,
      ]),
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'time', ...d.rules() },
    test: () => `${code} < @"12:00:00"`,
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'email', ...d.rules() },
    test: () => `ends with(${code}, ".example")`,
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'scale', min: 1, max: 5, ...leftOut(d), ...d.rules() },
    test: () => `${code} >= ${1 + Math.floor(d.next() * 5)}`,
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'grid',
      rows: labelled(['r1', 'r2']),
      options: OPTIONS.map((o, i) => ({ code: o, label: o, points: i })),
      ...leftOut(d),
      ...d.rules(),
    },
    test: () => d.pick([`${code}.r1 = "a"`, `sum(${code}.points) > 2`]),
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'ranking',
      options: labelled(OPTIONS),
      most: 2,
      ...d.rules(),
    },
    test: () => `${code}[1] = "${d.pick(OPTIONS)}"`,
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'signature', ...d.rules() },
    test: () => `${code} = true`,
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'choice',
      list: 'harbours',
      ...d.rules(),
      ...(d.asked.some(a => a.code === 'coast') ? { narrowedBy: 'row.coast = coast' } : {}),
    },
    test: () => d.pick([`${code}.row.depth > 3`, `${code} = "h1"`]),
  }),
  (d, code) => ({
    item: { kind: 'question', code, label: code, type: 'hidden', holds: 'number', default: '4' },
    test: () => `${code} > 3`,
  }),
  (d, code) => ({
    item: {
      kind: 'question',
      code,
      label: code,
      type: 'value',
      decimals: 2,
      value: d.asked.length > 0 && d.chance(0.7) ? `if ${d.leaf()} then 10.5 else 2` : '1 / 3',
    },
    test: () => `${code} > 5`,
  }),
  (d, code) => ({
    item: {
      kind: 'group',
      code,
      title: code,
      repeat: { min: d.chance(0.3) ? 1 : 0, max: 3, heading: `{{ ${code}_name }}` },
      ...(d.chance(0.3) ? { shownWhen: d.rule() } : {}),
      items: [
        {
          kind: 'question',
          code: `${code}_name`,
          label: 'Name',
          type: 'text',
          ...(d.chance(0.5) ? { required: true } : {}),
        },
        {
          kind: 'question',
          code: `${code}_power`,
          label: 'Power',
          type: 'integer',
          min: 0,
          max: 9,
          shownWhen: d.chance(0.5) ? `${code}_name != null` : d.rule(),
        },
        { kind: 'question', code: `${code}_price`, label: 'Price', type: 'money', currency: 'EUR', min: 0 },
        {
          kind: 'group',
          code: `${code}_in`,
          title: 'Inner',
          repeat: { max: 2 },
          items: [
            {
              kind: 'question',
              code: `${code}_deep`,
              label: 'Deep',
              type: 'yesNo',
              shownWhen: `${code}_power > 2`,
            },
          ],
        },
        {
          kind: 'question',
          code: `${code}_half`,
          label: 'Half',
          type: 'value',
          value: `${code}_power / 2`,
        },
      ],
    },
    test: () =>
      d.pick([
        `count(${code}) > 1`,
        `some e in ${code} satisfies e.${code}_power > 5`,
        `count(${code}[${code}_power > 3]) > 0`,
        `sum(${code}.${code}_price) > 20`,
      ]),
  }),
]

/** A question that leads on; what is never asked leads nowhere. */
const withSkip = (item: Item, skip: Skip): Item =>
  item.kind === 'question' && item.type !== 'value' && item.type !== 'hidden'
    ? { ...item, skips: [skip] }
    : item

function sectionOf(d: Drawing, s: number): Section {
  const shownWhen = s > 0 && d.chance(0.3) ? d.rule() : undefined
  const items: Item[] =
    s === 0
      ? [
          {
            kind: 'question',
            code: 'coast',
            label: 'Coast',
            type: 'choice',
            list: 'coasts',
            ...(d.chance(0.5) ? { required: true } : {}),
          },
        ]
      : []
  if (s === 0) d.asked.push({ code: 'coast', test: () => `coast = "${d.pick(COASTS)}"` })
  const skipping: { index: number; when: string }[] = []
  for (let i = 0, n = 2 + Math.floor(d.next() * 4); i < n; i++) {
    const { item, test } = d.pick(MAKERS)(d, `q${d.count++}`)
    items.push(item)
    d.asked.push({ code: item.code, test })
    if (d.chance(0.12)) skipping.push({ index: items.length - 1, when: d.rule() })
    if (d.chance(0.25)) items.push(d.note(`n${d.count}`))
  }
  for (const { index, when } of skipping) {
    const to = d.pick([...items.slice(index + 1).map(i => `item/${i.code}`), 'finish'])
    items[index] = withSkip(items[index]!, { when, to })
  }
  return {
    code: `s${s}`,
    title: `Section ${s}`,
    ...(shownWhen === undefined ? {} : { shownWhen }),
    items,
    ...(s === 0 && d.chance(0.3) ? { routes: [{ when: d.rule(), to: d.pick(['s1', 'finish']) }] } : {}),
  }
}

/** A random form that uses every feature of the language: all types, entries in entries, narrowing, quotes, calculations, locks, routes, skips. */
export function richForm(seed: number): Form {
  const d = new Drawing(seed)
  const sections = Array.from({ length: 2 + Math.floor(d.next() * 2) }, (_, s) => sectionOf(d, s))
  return {
    tobbin: 2,
    code: 'rich',
    title: 'Rich',
    sections,
    lists: [
      { code: 'coasts', rows: labelled(COASTS) },
      {
        code: 'harbours',
        columns: ['coast', 'depth'],
        rows: COASTS.flatMap((coast, c) =>
          [0, 1].map(i => ({
            code: `h${c * 2 + i}`,
            label: `Harbour ${c * 2 + i}`,
            coast,
            depth: c + i * 2,
          })),
        ),
      },
    ],
    closings: [{ code: 'thanks', text: 'Thank you, {{ coast }}.' }],
  }
}

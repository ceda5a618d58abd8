import { seededRandom } from '../../core/fill/draw'
import type { Form, Item, Section } from '../../core/form/definition'

const COASTS = ['north', 'east', 'south']
const OPTIONS = ['a', 'b', 'c', 'd']
const labelled = (codes: readonly string[]) => codes.map(code => ({ code, label: code.toUpperCase() }))

/** A random form that uses every feature of the language: all types, entries in entries, narrowing, quotes, calculations, locks, routes. */
export function richForm(seed: number): Form {
  const next = seededRandom(seed)
  const chance = (p: number) => next() < p
  const pick = <T>(items: readonly T[]): T => items[Math.floor(next() * items.length)] ?? items[0]!
  const asked: { code: string; test: () => string }[] = []
  const leaf = () => (asked.length === 0 ? 'true' : pick(asked).test())
  const rule = (): string => {
    const [a, b] = [leaf(), leaf()]
    return pick([
      a,
      a,
      `not(${a})`,
      `(${a}) and (${b})`,
      `(${a}) or (${b})`,
      `if ${a} then ${b} else not(${b})`,
    ])
  }
  const required = () => {
    if (chance(0.25)) return { required: true as const }
    return chance(0.15) ? { required: rule() } : {}
  }
  const rules = () => ({
    ...(chance(0.45) ? { shownWhen: rule() } : {}),
    ...required(),
    ...(chance(0.08) ? { readOnly: rule() } : {}),
  })
  const note = (code: string): Item => ({
    kind: 'note',
    code,
    text: `Noted: {{ ${pick(asked)?.code ?? '1'} }}.`,
    ...(chance(0.5) ? { shownWhen: rule() } : {}),
  })
  let count = 0
  const makers: ((code: string) => { item: Item; test: () => string })[] = [
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'yesNo',
        ...rules(),
        ...(chance(0.2) ? { default: 'true' } : {}),
      },
      test: () => `${code} = ${chance(0.5)}`,
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: `${code} of {{ ${pick(asked)?.code ?? '1'} }}`,
        type: 'choice',
        options: OPTIONS.map(o => ({
          code: o,
          label: o,
          points: next() < 0.5 ? 2 : 5,
          ...(asked.length > 0 && chance(0.15) ? { shownWhen: rule() } : {}),
        })),
        ...(chance(0.3) ? { writeIn: true as const } : {}),
        ...rules(),
      },
      test: () => pick([`${code} in ["a", "b"]`, `${code} != null`, `${code}.points > 3`]),
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'choices',
        options: labelled(OPTIONS),
        ...(chance(0.3) ? { most: 2 } : {}),
        ...rules(),
      },
      test: () =>
        pick([`list contains(${code}, "${pick(OPTIONS)}")`, `count(${code}) >= 2`, `${code} = null`]),
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'integer',
        min: 0,
        max: 20,
        ...rules(),
        ...(chance(0.2) ? { validWhen: [{ rule: `${code} != 13`, message: `Not {{ ${code} }}.` }] } : {}),
      },
      test: () => `${code} ${pick(['<', '>=', '='])} ${Math.floor(next() * 20)}`,
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'money', currency: 'EUR', min: 0, ...rules() },
      test: () => `${code} > ${Math.floor(next() * 40)}.50`,
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'text',
        ...rules(),
        ...(chance(0.2) ? { default: '"oak"' } : {}),
      },
      test: () => pick([`${code} = "oak"`, `string length(${code}) > 4`, `matches(${code}, "^o")`]),
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'date', ...rules() },
      test: () =>
        pick([
          `${code} < today()`,
          `${code} >= @"2026-05-01"`,
          `years and months duration(${code}, today()).years >= 18`,
        ]),
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'time', ...rules() },
      test: () => `${code} < @"12:00:00"`,
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'email', ...rules() },
      test: () => `ends with(${code}, ".example")`,
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'scale', min: 1, max: 5, ...rules() },
      test: () => `${code} >= ${1 + Math.floor(next() * 5)}`,
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'grid',
        rows: labelled(['r1', 'r2']),
        options: OPTIONS.map((o, i) => ({ code: o, label: o, points: i })),
        ...rules(),
      },
      test: () => pick([`${code}.r1 = "a"`, `sum(${code}.points) > 2`]),
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'ranking',
        options: labelled(OPTIONS),
        most: 2,
        ...rules(),
      },
      test: () => `${code}[1] = "${pick(OPTIONS)}"`,
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'signature', ...rules() },
      test: () => `${code} = true`,
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'choice',
        list: 'harbours',
        ...rules(),
        ...(asked.some(a => a.code === 'coast') ? { narrowedBy: 'row.coast = coast' } : {}),
      },
      test: () => pick([`${code}.row.depth > 3`, `${code} = "h1"`]),
    }),
    code => ({
      item: { kind: 'question', code, label: code, type: 'hidden', holds: 'number', default: '4' },
      test: () => `${code} > 3`,
    }),
    code => ({
      item: {
        kind: 'question',
        code,
        label: code,
        type: 'value',
        decimals: 2,
        value: asked.length > 0 && chance(0.7) ? `if ${leaf()} then 10.5 else 2` : '1 / 3',
      },
      test: () => `${code} > 5`,
    }),
    code => ({
      item: {
        kind: 'group',
        code,
        title: code,
        repeat: { min: chance(0.3) ? 1 : 0, max: 3, heading: `{{ ${code}_name }}` },
        ...(chance(0.3) ? { shownWhen: rule() } : {}),
        items: [
          {
            kind: 'question',
            code: `${code}_name`,
            label: 'Name',
            type: 'text',
            ...(chance(0.5) ? { required: true } : {}),
          },
          {
            kind: 'question',
            code: `${code}_power`,
            label: 'Power',
            type: 'integer',
            min: 0,
            max: 9,
            shownWhen: chance(0.5) ? `${code}_name != null` : rule(),
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
        pick([
          `count(${code}) > 1`,
          `some e in ${code} satisfies e.${code}_power > 5`,
          `count(${code}[${code}_power > 3]) > 0`,
          `sum(${code}.${code}_price) > 20`,
        ]),
    }),
  ]
  const sections = Array.from({ length: 2 + Math.floor(next() * 2) }, (_, s): Section => {
    const shownWhen = s > 0 && chance(0.3) ? rule() : undefined
    const items: Item[] =
      s === 0
        ? [
            {
              kind: 'question',
              code: 'coast',
              label: 'Coast',
              type: 'choice',
              list: 'coasts',
              ...(chance(0.5) ? { required: true } : {}),
            },
          ]
        : []
    if (s === 0) asked.push({ code: 'coast', test: () => `coast = "${pick(COASTS)}"` })
    for (let i = 0, n = 2 + Math.floor(next() * 4); i < n; i++) {
      const { item, test } = pick(makers)(`q${count++}`)
      items.push(item)
      asked.push({ code: item.code, test })
      if (chance(0.25)) items.push(note(`n${count}`))
    }
    return {
      code: `s${s}`,
      title: `Section ${s}`,
      ...(shownWhen === undefined ? {} : { shownWhen }),
      items,
      ...(s === 0 && chance(0.3) ? { routes: [{ when: rule(), to: pick(['s1', 'finish']) }] } : {}),
    }
  })
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

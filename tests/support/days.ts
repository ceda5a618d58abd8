import fc from 'fast-check'

export const DAYS = ['2026-05-01', '2026-05-02', '2026-05-03']
const pick = <T>(items: readonly T[]) => fc.constantFrom(...items)
const q = (text: string) => JSON.stringify(text)

/** Conditions on days: against each other, moved, and how far apart they are. */
export function days(questions: readonly { code: string; kind: string }[]): fc.Arbitrary<string> {
  const day = pick([
    ...questions.filter(o => o.kind === 'date').map(o => o.code),
    ...DAYS.map(d => `@${q(d)}`),
  ])
  const ops = pick(['=', '!=', '<', '<=', '>', '>='])
  return fc.oneof(
    fc
      .tuple(day, ops, day, pick(['', ' + duration("P1D")', ' - duration("P1D")', ' + duration("P1M")']))
      .map(([a, op, b, by]) => `${a}${by} ${op} ${b}`),
    fc.tuple(day, day, ops, pick([-1, 0, 1, 2])).map(([a, b, op, n]) => `(${a} - ${b}).days ${op} ${n}`),
    fc.tuple(day, ops, pick([1, 5, 6])).map(([a, op, n]) => `${a}.weekday ${op} ${n}`),
    fc.tuple(day, day, ops).map(([a, b, op]) => `years and months duration(${a}, ${b}).years ${op} 0`),
  )
}

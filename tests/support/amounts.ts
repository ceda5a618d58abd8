import fc from 'fast-check'

const CURRENCIES = ['EUR', 'GBP']
/** So few cents that all amounts can be tried. */
const CENTS = [0, 0.01, 0.02, 0.03]

/** What an amount in one of two currencies says beyond its code and label. */
export const AMOUNT = { type: 'money' as const, currency: 'EUR', currencies: CURRENCIES, min: 0, max: 0.03 }
/** Every answer that can be given to it. */
export const AMOUNTS_GIVEN = CURRENCIES.flatMap(currency =>
  CENTS.map(n => ({ amount: n.toFixed(2), currency })),
)

const pick = <T>(items: readonly T[]) => fc.constantFrom(...items)

/** What a rule may ask of an amount: its currency, or the amount in one, against a constant, another amount or a number. */
export function amountLeaf(
  questions: readonly { code: string; kind: string }[],
  code: string,
): fc.Arbitrary<string> {
  const others = questions.flatMap(o => {
    if (o.kind === 'money') return CURRENCIES.map(c => `${o.code}.${c}`)
    return o.kind === 'integer' ? [o.code] : []
  })
  const compared = (ops: readonly string[], sides: readonly (string | number)[]) =>
    fc.tuple(pick(CURRENCIES), pick(ops), pick(sides)).map(([c, op, side]) => `${code}.${c} ${op} ${side}`)
  return fc.oneof(
    compared(['=', '!=', '<', '<=', '>', '>='], [...CENTS, -1, 4, 0.015]),
    compared(['=', '<', '>='], [...others, '1']),
    fc.tuple(pick(CURRENCIES), pick(CENTS)).map(([c, n]) => `${code}.${c} in [${n}..0.02]`),
    pick(CURRENCIES).map(c => `${code}.currency = "${c}"`),
  )
}

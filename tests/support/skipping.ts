import fc from 'fast-check'
import type { Item } from '../../core/form/definition'

/** Where a question stands in a random form: the questions after it, and the sections s0, s1, … with their notes n0, n1, …. */
interface Standing {
  after: readonly { code: string }[]
  here: number
  sections: number
}

function targetsOf({ after, here, sections }: Standing): string[] {
  const onward = Array.from({ length: sections - here }, (_, i) => here + i)
  return [
    ...after.map(a => `item/${a.code}`),
    ...onward.slice(1).map(n => `section/s${n}`),
    ...onward.map(n => `item/n${n}`),
    'finish',
  ]
}

/** A question of a random form, one in five with skips that lead forward. */
export function skipping(
  item: fc.Arbitrary<Item>,
  condition: fc.Arbitrary<string>,
  standing: Standing,
): fc.Arbitrary<Item> {
  const skip = fc.record(
    { when: condition, to: fc.constantFrom(...targetsOf(standing)) },
    { requiredKeys: ['to'] },
  )
  const skips = fc.array(skip, { minLength: 1, maxLength: 2 })
  return fc.oneof(
    { weight: 4, arbitrary: item },
    {
      weight: 1,
      arbitrary: fc.tuple(item, skips).map(([made, led]): Item => Object.assign({}, made, { skips: led })),
    },
  )
}

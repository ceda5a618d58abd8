import { floorOf, rational } from './rational'

/** Of a test that is true up to an edge (`upTo`): the last true number; or of one that is true from an edge on: the first. By halving. */
export function edgeOf(
  [low, high]: readonly [bigint, bigint],
  holds: (x: bigint) => boolean,
  upTo: boolean,
): bigint {
  let [from, to] = [low - 1n, high + 1n]
  while (to - from > 1n) {
    const middle = floorOf(rational(from + to, 2n))
    if (holds(middle) === upTo) from = middle
    else to = middle
  }
  return upTo ? from : to
}

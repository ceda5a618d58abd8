/** What is told of some numbers: `sum` exact to the digits that they have; quartiles by linear interpolation (Hyndman & Fan 1996, type 7). */
export interface NumberSummary {
  count: number
  sum: number
  mean: number
  min: number
  max: number
  q1: number
  median: number
  q3: number
  areWhole: boolean
  bins: Bin[]
}
/** So many numbers are at least `from`, and below `to`; in the last bin also at it. */
export interface Bin {
  from: number
  to: number
  count: number
}

/** Digits behind the point up to which sums are exact. */
const MOST_DIGITS = 6
/** Bins of a histogram, about. */
const BINS = 10

/** Tells of some numbers; null of none. */
export function summariseNumbers(numbers: readonly number[] | Float64Array): NumberSummary | null {
  const sorted = Float64Array.from(numbers).sort()
  const [min, max] = [sorted[0], sorted.at(-1)]
  if (min === undefined || max === undefined) return null
  const sum = sumOf(sorted)
  const areWhole = sorted.every(Number.isInteger)
  return {
    ...{ count: sorted.length, sum, mean: sum / sorted.length, min, max },
    q1: quantile(sorted, 0.25),
    median: quantile(sorted, 0.5),
    q3: quantile(sorted, 0.75),
    areWhole,
    bins: binsOf(sorted, binEdges(min, max, areWhole)),
  }
}

/** The sum of numbers with few digits behind the point, without the error that adding them up as they are would have. */
export function sumOf(numbers: Float64Array | readonly number[]): number {
  const digits = digitsOf(numbers)
  const unit = 10 ** digits
  let units = 0
  for (const n of numbers) units += Math.round(n * unit)
  return units / unit
}

function digitsOf(numbers: Float64Array | readonly number[]): number {
  let digits = 0
  for (const n of numbers)
    while (digits < MOST_DIGITS && Math.abs(Math.round(n * 10 ** digits) - n * 10 ** digits) > 1e-9)
      digits += 1
  return digits
}

/** A quantile of sorted numbers, at `share` between 0 and 1. */
export function quantile(sorted: Float64Array | readonly number[], share: number): number {
  const at = (sorted.length - 1) * share
  const below = sorted[Math.floor(at)] ?? Number.NaN
  const above = sorted[Math.ceil(at)] ?? below
  return below + (above - below) * (at - Math.floor(at))
}

/** Edges of bins of one round width that hold everything from `min` to `max`; whole numbers that are few get a bin each. */
export function binEdges(min: number, max: number, areWhole: boolean): number[] {
  if (areWhole && max - min < 2 * BINS) return edgesFrom(min, 1, max - min + 1)
  const width = roundWidth((max - min) / BINS)
  if (width === 0) return [min, min + 1]
  const first = Math.floor(min / width)
  const last = Math.max(first + 1, Math.ceil(max / width))
  return edgesFrom(first * width, width, last - first)
}

const edgesFrom = (from: number, width: number, bins: number) =>
  Array.from({ length: bins + 1 }, (_, i) => tidy(from + i * width))
/** Without what multiplying has left behind. */
const tidy = (n: number) => Number(n.toPrecision(12))

/** The next of 1, 2, 5 and their tens that is at least as wide. */
function roundWidth(width: number): number {
  if (width <= 0) return 0
  const ten = 10 ** Math.floor(Math.log10(width))
  return tidy(([1, 2, 5, 10].find(step => step * ten >= width * 0.999_999) ?? 10) * ten)
}

function binsOf(sorted: Float64Array, edges: readonly number[]): Bin[] {
  const bins = edges.slice(0, -1).map((from, i) => ({ from, to: edges[i + 1] ?? from, count: 0 }))
  for (const n of sorted) {
    const bin = bins[binAt(edges, n)]
    if (bin) bin.count += 1
  }
  return bins
}

/** In which of the bins between some edges a number is. */
export function binAt(edges: readonly number[], n: number): number {
  let [low, high] = [0, edges.length - 2]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if ((edges[middle] ?? 0) <= n) low = middle
    else high = middle - 1
  }
  return low
}

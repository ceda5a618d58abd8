import type { Dimension } from './dimensions'
import { ANSWERED, type Column } from './factTable'
import { quantile, sumOf } from './numbers'

/** What stands in each cell: how many responses, or of the numbers that they give to a measure. */
export type CrossFigure = 'count' | 'sum' | 'mean' | 'median'

/**
 * A table of responses by two sides, or three. `layers`: one for each value of the third side, one alone without; their `cells` by row and
 * column, null where there is nothing to be told; `counts`: the responses in each. A response stands in several cells where it chose several.
 * `counted`: how many responses stand in the table, `left`: how many have no answer on one of its sides.
 */
export interface CrossTable {
  rows: Dimension
  columns: Dimension
  layers: { label: string; cells: (number | null)[][]; counts: number[][] }[]
  counted: number
  left: number
}

/** Counts responses by two or three of their answers, and works out a figure of a further one for each cell. */
export function crossTable(
  selected: Int32Array,
  sides: { rows: Dimension; columns: Dimension; layer: Dimension | null },
  of: { figure: CrossFigure; column: Column | null },
): CrossTable {
  const { rows, columns, layer } = sides
  const layers = (layer?.headings ?? [{ label: '' }]).map(({ label }) => ({
    label,
    held: rows.headings.map(() => columns.headings.map((): number[] => [])),
    counts: rows.headings.map(() => columns.headings.map(() => 0)),
  }))
  let counted = 0
  for (const row of selected) {
    const at = layer ? layer.at(row) : [0]
    const cells = at.flatMap(l => rows.at(row).flatMap(r => columns.at(row).map(c => [l, r, c] as const)))
    if (cells.length > 0) counted += 1
    const numbers = of.column?.states[row] === ANSWERED ? of.column.valuesAt(row) : []
    for (const [l, r, c] of cells) {
      const counts = layers[l]?.counts[r]
      if (counts?.[c] === undefined) continue
      counts[c] += 1
      layers[l]?.held[r]?.[c]?.push(...numbers)
    }
  }
  const told = layers.map(({ label, held, counts }) => ({
    label,
    counts,
    cells: counts.map((line, r) => line.map((count, c) => figureOf(of.figure, count, held[r]?.[c] ?? []))),
  }))
  return { rows, columns, layers: told, counted, left: selected.length - counted }
}

function figureOf(figure: CrossFigure, count: number, numbers: readonly number[]): number | null {
  if (figure === 'count') return count
  if (numbers.length === 0) return null
  if (figure === 'sum') return sumOf(numbers)
  if (figure === 'mean') return sumOf(numbers) / numbers.length
  return quantile(
    numbers.toSorted((a, b) => a - b),
    0.5,
  )
}

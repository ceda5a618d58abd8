/** The sign between a code and the number of an entry; no code of a form has it. */
const AT = '@'
/** The question of the k-th entry, from 1 on; no code of a form has this sign. */
export const codeAt = (code: string, entry: number): string => `${code}${AT}${entry}`
/** The places of a copy, by its number, come after all others. */
export const STRIDE = 1_000_000
/** The order that the place of a copy has in the form itself. */
export const orderInForm = (order: number): number => order % STRIDE
const ROW = '#'
/** The row of a grid, as a question of its own. */
export const rowCode = (grid: string, row: string): string => `${grid}${ROW}${row}`
const PARTS = /^([^@#]*)(?:@(\d+))?(?:#(.*))?$/s
/** A code as it is known by: the first entry's without its number. */
export const plainCode = (code: string): string => (code.includes(AT) ? partsOf(code) : code)
function partsOf(code: string): string {
  const { base, entry } = parseEntryCode(code)
  return entry === 1 ? base : code
}

/**
 * What a code is made of: the code that a question of an entry goes by in the form, and which entry it is of; of the row of a grid, the grid
 * (in its entry) and the row.
 */
export function parseEntryCode(code: string): {
  base: string
  entry: number
  grid: string | null
  row: string
} {
  const at = code.includes(AT) || code.includes(ROW) ? PARTS.exec(code) : null
  if (!at) return { base: code, entry: 1, grid: null, row: '' }
  const [, own = '', entry = '1', row] = at
  return {
    base: row === undefined ? own : rowCode(own, row),
    entry: Number(entry),
    grid: row === undefined ? null : plainCode(codeAt(own, Number(entry))),
    row: row ?? '',
  }
}

import { type Row, ROW_KEYS } from '../form/choiceLists'
import type { OfferedRow } from '../form/rows'
import type { ListIndex } from './listIndex'

/** A row without the designers' own marks, as it may leave the server. */
export function publicRow(row: Row): Row {
  const kept = Object.entries(row).filter(([key]) => key === 'code' || key === 'label' || !ROW_KEYS.has(key))
  // The shape is that of a row: only marks, remarks and “retired” were left out.
  return Object.fromEntries(kept) as Row
}

const fold = (text: string) => text.normalize('NFKD').replaceAll(/\p{M}/gu, '').toLowerCase()
const FOLDED = new WeakMap<ListIndex, string[]>()

/**
 * The rows on offer whose label holds every word that was typed, in the order of the list; those that begin with what was typed first.
 * @param offered the codes on offer; null when all
 * @param most how many are given back; `count` says how many there are
 */
export function searchRows(
  index: ListIndex,
  offered: ReadonlySet<string> | null,
  typed: string,
  most: number,
): { rows: OfferedRow[]; count: number } {
  const folded = FOLDED.get(index) ?? index.rows.map(r => fold(r.label))
  FOLDED.set(index, folded)
  const whole = fold(typed).trim()
  const words = whole.split(/\s+/).filter(Boolean)
  const [first, rest]: [OfferedRow[], OfferedRow[]] = [[], []]
  let count = 0
  for (let i = 0; i < index.rows.length; i++) {
    const row = index.rows[i]
    const label = folded[i] ?? ''
    if (!row || (offered !== null && !offered.has(row.code)) || !words.every(w => label.includes(w))) continue
    count += 1
    if (whole !== '' && label.startsWith(whole)) {
      if (first.length < most) first.push(row)
    } else if (rest.length < most) rest.push(row)
  }
  return { rows: [...first, ...rest].slice(0, most), count }
}

/** The edit distance of two texts with neighbours swapped counting once (optimal string alignment). */
function distance(a: string, b: string): number {
  const rows: number[][] = [Array.from({ length: b.length + 1 }, (_, j) => j)]
  const cell = (i: number, j: number) => rows[i]?.[j] ?? 0
  for (let i = 1; i <= a.length; i++) {
    const row = [i]
    rows.push(row)
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1
      let best = Math.min(cell(i - 1, j) + 1, (row[j - 1] ?? 0) + 1, cell(i - 1, j - 1) + same)
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        best = Math.min(best, cell(i - 2, j - 2) + 1)
      row.push(best)
    }
  }
  return cell(a.length, b.length)
}

const plain = (word: string) => word.toLowerCase().replaceAll(/[\s_-]+/g, '')

/** The candidate nearest to a misspelt word, or null when none is near (at most a third of its letters wrong). */
export function nearest(word: string, candidates: Iterable<string>): string | null {
  const wanted = plain(word)
  let best: string | null = null
  let least = Math.min(Math.max(1, Math.floor(wanted.length / 3)), wanted.length - 1) + 1
  for (const candidate of candidates) {
    if (Math.abs(candidate.length - word.length) > 12) continue
    const d = distance(wanted.slice(0, 60), plain(candidate).slice(0, 60))
    if (d < least) [best, least] = [candidate, d]
  }
  return best
}

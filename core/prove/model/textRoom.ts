/**
 * What each piece takes of a text at least, whichever of the others stand in it too: its letters less those that it can share, counted once from
 * the starts and once from the ends. In order of where they start, each piece that does not stand inside another brings what it does not share
 * with the one before it, so that the sums over the pieces of a text are never more than its length.
 */
export const roomsOf = (pieces: readonly string[]): number[][] =>
  [shareOfStart, shareOfEnd].map(shared =>
    pieces.map((piece, i) => {
      // What is asked for twice stands there once.
      if (pieces.indexOf(piece) < i) return 0
      const others = pieces.filter(o => o !== piece)
      return [...piece].length - Math.max(0, ...others.map(other => shared(piece, other)))
    }),
  )

/** How many letters of its start a piece can share with what another ends with; all where it stands inside. */
function shareOfStart(piece: string, other: string): number {
  if (other.includes(piece)) return [...piece].length
  const letters = [...piece]
  for (let k = letters.length - 1; k > 0; k--) if (other.endsWith(letters.slice(0, k).join(''))) return k
  return 0
}

/** How many letters of its end a piece can share with what another starts with; all where it stands inside. */
function shareOfEnd(piece: string, other: string): number {
  if (other.includes(piece)) return [...piece].length
  const letters = [...piece]
  for (let k = letters.length - 1; k > 0; k--) if (other.startsWith(letters.slice(-k).join(''))) return k
  return 0
}

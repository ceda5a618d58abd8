/** How many choices are wanted, as a sentence; null where any number will do. */
export function choicesWanted({ least, most }: { least?: number; most?: number }): string | null {
  if (least !== undefined && least === most) return `Choose ${least}.`
  if (least !== undefined && most !== undefined) return `Choose ${least} to ${most}.`
  if (least !== undefined && least > 1) return `Choose at least ${least}.`
  return most === undefined ? null : `Choose at most ${most}.`
}

import type { ResponseLine } from './describeResponse'

/** Lines that stand together: those of a section, or of an entry, which the first of them heads. */
export function linesByHeading<L extends Pick<ResponseLine, 'heading' | 'entry'>>(
  lines: readonly L[],
): { first: L; lines: L[] }[] {
  const blocks: { first: L; lines: L[] }[] = []
  for (const line of lines) {
    const last = blocks.at(-1)
    if (last && !line.heading && !line.entry) last.lines.push(line)
    else blocks.push({ first: line, lines: [line] })
  }
  return blocks
}

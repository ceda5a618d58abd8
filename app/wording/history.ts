import type { HistoryLine } from '#shared/api/responses'

/** What happened to a response, as a sentence without who did it. */
const WORDS: Record<HistoryLine['kind'], (line: HistoryLine) => string> = {
  sent: ({ turn, target, isDone }) =>
    isDone ? `handed in “${turn}”: done` : `handed in “${turn}”, on to “${target}”`,
  corrected: () => 'corrected the response',
  returned: ({ turn, target }) => `gave “${turn}” back to “${target}”`,
  reassigned: ({ turn, to }) => `gave “${turn}” to ${to.join(', ')}`,
  'taken over': ({ turn }) => `took “${turn}” over`,
  reminded: ({ turn, to }) => `reminded ${to.join(', ')} of “${turn}”`,
  escalated: ({ turn, to }) => `“${turn}” was late and went to ${to.join(', ')}`,
  'taken back': ({ turn, target }) => `took it from “${turn}” back to “${target}”`,
  withdrawn: () => 'withdrew the response',
  'link made': ({ turn }) => `made a link to “${turn}”`,
  'links revoked': ({ turn }) => `revoked the links to “${turn}”`,
  posted: ({ to, subject }) => `Letter to ${to.join(', ')}: ${subject}`,
}
/** What Tobbin does by itself, or tells of without saying who. */
const BY_ITSELF: ReadonlySet<HistoryLine['kind']> = new Set(['posted', 'escalated'])

/** What happened, and who did it. */
export function sayHistory(line: HistoryLine): string {
  const words = WORDS[line.kind](line)
  if (BY_ITSELF.has(line.kind)) return words
  const who = line.who || (line.kind === 'reminded' ? 'Tobbin' : 'Whoever had the link')
  return `${who} ${words}`
}

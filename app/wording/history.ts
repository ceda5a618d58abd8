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
  sorted: ({ remark }) => (remark ? 'put it into the tray' : 'took it out of its tray'),
  noted: ({ to }) => (to.length > 0 ? `noted, and told ${to.join(', ')}` : 'noted'),
  deleted: () => 'put it into the bin',
  'put back': () => 'took it out of the bin',
  stripped: () => 'took the personal answers out',
  paid: ({ who }) => (who ? 'noted that it is paid' : 'paid'),
  'payment refused': () => 'tried to pay, and the payment service refused',
  'paid back': () => 'paid back what was paid',
  'document made': () => 'made a document',
  signed: ({ turn }) => (turn ? `signed in “${turn}”` : 'signed'),
  posted: ({ to, subject, letter }) =>
    `Letter to ${to.join(', ')}: ${subject}${LETTER_WORDS[letter ?? 'sent']}`,
}
/** How a letter stands, behind its subject. */
const LETTER_WORDS: Record<NonNullable<HistoryLine['letter']>, string> = {
  sent: '',
  waiting: ' (waits for the mail server)',
  bounced: ' (came back)',
  'given up': ' (given up)',
}
/** What Tobbin does by itself, or tells of without saying who. */
const BY_ITSELF: ReadonlySet<HistoryLine['kind']> = new Set(['posted', 'escalated'])

/** What happened, and who did it. */
export function sayHistory(line: HistoryLine): string {
  const words = WORDS[line.kind](line)
  if (BY_ITSELF.has(line.kind)) return words
  const who = line.who || nobody(line.kind)
  return `${who} ${words}`
}

/** What Tobbin does where nobody is named. */
const OURS: ReadonlySet<HistoryLine['kind']> = new Set([
  'reminded',
  'sorted',
  'deleted',
  'stripped',
  'document made',
])
const nobody = (kind: HistoryLine['kind']) => (OURS.has(kind) ? 'Tobbin' : 'Whoever had the link')

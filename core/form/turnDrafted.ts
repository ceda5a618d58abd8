import { draftQuestion, type Drafted } from './outlineQuestion'

export const DRAFTED_KINDS = ['section', 'question', 'note'] as const

/** The same words as something of another kind. */
export function turnDrafted(drafted: Drafted, into: (typeof DRAFTED_KINDS)[number]): Drafted {
  const words = draftedWords(drafted)
  if (into === 'section') return { kind: 'section', title: words }
  if (into === 'note') return { kind: 'note', text: words }
  return { ...draftQuestion(''), label: words }
}

function draftedWords(drafted: Drafted): string {
  if (drafted.kind === 'section') return drafted.title
  return drafted.kind === 'question' ? drafted.label : drafted.text
}

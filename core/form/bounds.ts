import type { MessageKind } from './messages'
import type { Question } from './questions'

/** A limit of an answer that is worked out: as a check, and what is said where nobody says otherwise. */
export interface Bound {
  /** 0: the least; 1: the most. */
  index: 0 | 1
  key: 'atLeast' | 'atMost'
  /** The limit, as it is written. */
  limit: string
  /** The check that it amounts to: `hauled_on >= (today() + duration("P3D"))`. */
  rule: string
  /** What is said, with the limit quoted. */
  message: string
  kind: MessageKind
}

const SIGNS = { atLeast: '>=', atMost: '<=' } as const
const KEYS = ['atLeast', 'atMost'] as const
/** By type of question: what breaking the least and the most is called. */
const KINDS = {
  number: { atLeast: 'tooSmall', atMost: 'tooLarge' },
  time: { atLeast: 'tooEarly', atMost: 'tooLate' },
} as const

/** The limits of a question that are worked out, the least first. */
export function boundsOf(question: Question): Bound[] {
  return KEYS.flatMap((key, at): Bound[] => {
    const limit = key in question ? (Reflect.get(question, key) as string | undefined) : undefined
    if (limit === undefined) return []
    const isNumber = ['integer', 'decimal', 'money'].includes(question.type)
    return [
      {
        index: at === 0 ? 0 : 1,
        key,
        limit,
        rule: `${question.code} ${SIGNS[key]} (${limit})`,
        message: isNumber ? numberMessage(key, limit) : timeMessage(key, limit),
        kind: KINDS[isNumber ? 'number' : 'time'][key],
      },
    ]
  })
}

const numberMessage = (key: Bound['key'], limit: string) =>
  key === 'atLeast' ? `This must be at least {{ ${limit} }}.` : `This must be at most {{ ${limit} }}.`
const timeMessage = (key: Bound['key'], limit: string) =>
  key === 'atLeast' ? `This must be {{ ${limit} }} or later.` : `This must be {{ ${limit} }} or earlier.`

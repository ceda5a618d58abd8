import { defineStore } from 'pinia'
import type { Question } from '#core/form/questions'
import type { Address } from '#core/form/walk'

/** So many earlier types of one question are remembered. */
const MOST = 6

/** What questions were before they got another type, as long as the page is open: choices come back with the type. */
export const useRetyped = defineStore('retyped', () => {
  const known = new Map<string, readonly Question[]>()
  const keyOf = (address: Address) => `${useDraft().id} ${address}`
  /** A question as it was, the latest first. */
  const before = (address: Address): readonly Question[] => known.get(keyOf(address)) ?? []
  /** Keeps a question as it is, before it gets another type; a definition’s parts don’t change. */
  function keep(address: Address, question: Question) {
    const others = before(address).filter(q => q.type !== question.type)
    known.set(keyOf(address), [question, ...others].slice(0, MOST))
  }
  return { before, keep }
})

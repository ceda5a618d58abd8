import type { Answers } from '#core/form/answers'
import type { Form } from '#core/form/definition'
import { placeReader } from '#core/form/threads'
import type { Address, Place } from '#core/form/walk'
import type { Finding } from '#core/prove/finding'
import { dayHere } from '~/browser/dayHere'

/** What stands out in the rehearsal while a witness is open there. */
export function useWitness() {
  /** The answers of a witness that is open. */
  const shown = shallowRef<Answers | null>(null)
  /** What a witness was opened for. */
  const lit = ref<Address | null>(null)
  /** The rules that a finding is about. */
  const concerned = shallowRef<ReadonlySet<Address>>(new Set())
  /** The day that is rehearsed: today, unless a witness needs another. */
  const today = ref(dayHere())
  /** Done with the witness: nothing stands out any more, and it is today again. */
  function unlight() {
    shown.value = null
    lit.value = null
    concerned.value = new Set()
    today.value = dayHere()
  }
  return { shown, lit, concerned, today, unlight }
}

/** The places that a finding is about. A promise stands nowhere: what it names is concerned. */
export function placesConcerned(
  { conflict }: Finding,
  form: Form | null,
  places: readonly Place[],
): Address[] {
  const namedIn = placeReader(places)
  return conflict.flatMap(part =>
    part.kind === 'promise'
      ? namedIn(form?.promises?.[part.index]?.holds ?? '').map(p => p.address)
      : [part.address],
  )
}

import { placeName } from '#core/form/walk'

/** Fills the rest of the rehearsal, and says so or which question defeats it. */
export function useFillRest() {
  const rehearsal = useRehearsal()
  const { say } = useSaid()
  return () => {
    const defeatedBy = rehearsal.fillRest()
    if (!defeatedBy) say('The rest is filled with likely answers.')
    else {
      const { place } = defeatedBy.step
      say(`Nothing completes it: ${place.number} “${placeName(place)}”. ${defeatedBy.sentence}`)
    }
  }
}

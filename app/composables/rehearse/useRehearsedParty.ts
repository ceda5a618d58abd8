import type { Ref } from 'vue'
import { fill } from '#core/fill/fill'
import type { Page } from '#core/fill/pages'
import { planOf } from '#core/fill/plan'
import { partyOf } from '#core/parties/turns'
import { redactForParty } from '#core/parties/redact'

/** What of the form and of the answers is seen in a frame that rehearses a turn, by its code; all of the form for null. */
export function useRehearsedParty(as: Ref<string | null>) {
  const draft = useDraft()
  const rehearsal = useRehearsal()
  const turns = computed(() => draft.form?.turns ?? [])
  const turn = computed(() => turns.value.find(t => t.code === as.value) ?? null)
  const standing = computed(() => {
    const party = turn.value && draft.form && partyOf(draft.form, turn.value)
    const by = turn.value?.by
    const team = typeof by === 'object' && 'people' in by ? by.people : null
    return { ...rehearsal.standing, party: { name: party?.name ?? null }, team: { name: team } }
  })
  const seen = computed(() => {
    if (!rehearsal.filled || !turn.value) return null
    return redactForParty(rehearsal.filled, turn.value, rehearsal.answers)
  })
  const filled = computed(() => {
    if (!seen.value) return rehearsal.filled
    return fill(planOf(seen.value.form), seen.value.answers, rehearsal.today, standing.value)
  })
  const answers = computed(() => seen.value?.answers ?? rehearsal.answers)
  const access = computed(() => seen.value?.access ?? {})
  /** A party’s sections are counted by themselves, so it keeps a place of its own. */
  const partyPlace = ref<Page>({ section: 0, only: null })
  const place = computed({
    get: () => (turn.value ? partyPlace.value : rehearsal.place),
    set: page => {
      if (turn.value) partyPlace.value = page
      else rehearsal.place = page
    },
  })
  return { turns, turn, filled, answers, access, place }
}

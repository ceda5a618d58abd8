import type { Power } from '#shared/api/sharing'

/** What somebody may do with the draft that is open. */
export function useDraftRights() {
  const powers = shallowRef<readonly Power[]>([])
  const may = (power: Power) => powers.value.includes(power)
  /** Whether edits are held here until they are proposed, since this person may suggest but not write. */
  const isSuggesting = computed(() => may('suggest') && !may('design'))
  const canEdit = computed(() => may('suggest') || may('design'))
  /** Why nothing may be edited here; null: it may. */
  const closed = () => (canEdit.value ? null : 'You may look at this form, not change it.')
  return { powers, may, isSuggesting, canEdit, closed }
}

import { defineStore } from 'pinia'
import type { Address, Place } from '#core/form/walk'

/** Sections of the script of which only the heading shows, as long as the page is open. */
export const useFolded = defineStore('folded', () => {
  const draft = useDraft()
  const folded = ref<ReadonlySet<string>>(new Set())
  const keyOf = (address: Address) => `${draft.id} ${address}`
  const isFolded = (address: Address): boolean => folded.value.has(keyOf(address))
  function fold(address: Address, is: boolean) {
    if (is === isFolded(address)) return
    const next = new Set(folded.value)
    if (is) next.add(keyOf(address))
    else next.delete(keyOf(address))
    folded.value = next
  }
  const sections = computed(() => draft.places.filter(p => p.kind === 'section'))
  const any = computed(() => sections.value.some(s => isFolded(s.address)))
  const foldAll = (is: boolean) => sections.value.forEach(s => fold(s.address, is))
  /** The lines that show: those of folded sections don’t. With nothing folded the same list. */
  const visible = (places: readonly Place[]): readonly Place[] => {
    if (!any.value) return places
    const hidden = new Set(sections.value.filter(s => isFolded(s.address)).map(s => s.section))
    return places.filter(p => p.kind === 'section' || !hidden.has(p.section))
  }
  const sectionOf = (place: Place): Address | undefined =>
    sections.value.find(s => s.section === place.section)?.address
  /** Shows a line, whatever was folded. */
  function show(address: Address) {
    const place = draft.places.find(p => p.address === address)
    const section = place && place.kind !== 'section' ? sectionOf(place) : undefined
    if (section) fold(section, false)
  }
  /** Folds the section that a line stands in; gives its heading. */
  function foldAround(place: Place): Address {
    const section = sectionOf(place) ?? place.address
    fold(section, true)
    return section
  }
  /** The line that shows so many lines below another, or the last one before. */
  function lineAt(place: Place, by: number): Place | undefined {
    const lines = visible(draft.places)
    return lines[Math.max(0, Math.min(lines.length - 1, lines.indexOf(place) + by))]
  }
  return { isFolded, fold, foldAll, any, visible, show, foldAround, lineAt }
})

import type { Ref } from 'vue'
import type { Address, Place } from '#core/form/walk'

/** What is selected in the script. */
export function useSelection(places: Ref<Place[]>) {
  const selected = ref<Address | null>(null)
  /** Everything that is selected, `selected` among it. */
  const selection = shallowRef<readonly Address[]>([])

  /** Selects one thing, or adds a stretch or a single one to what is selected. */
  function select(address: Address | null, how: 'only' | 'stretch' | 'toggle' = 'only') {
    if (address === null) selection.value = []
    else if (how === 'only') selection.value = [address]
    else if (how === 'toggle') selection.value = toggled(selection.value, address)
    else selection.value = stretchTo(address)
    selected.value = address
  }
  /** From the first that is selected to another, in the order in which they were reached. */
  function stretchTo(address: Address): Address[] {
    const orderOf = (a: Address | null) => places.value.findIndex(p => p.address === a)
    const [anchor, to] = [orderOf(selection.value[0] ?? selected.value), orderOf(address)]
    const stretch = places.value.slice(Math.min(anchor, to), Math.max(anchor, to) + 1).map(p => p.address)
    return anchor <= to ? stretch : stretch.reverse()
  }
  return { selected, selection, select }
}

const toggled = (selection: readonly Address[], address: Address): Address[] =>
  selection.includes(address) ? selection.filter(a => a !== address) : [...selection, address]

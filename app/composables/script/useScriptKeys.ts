import type { Address, Place } from '#core/form/walk'

/** What of the script pane its keys act on. */
interface Pane {
  select: (address: Address | null, how?: 'only' | 'stretch') => void
  focus: (address: Address | null) => void
  toggle: (address: Address) => void
  /** Begins to type a line below a row, or the first one. */
  typeBelow: (address: Address | 'end') => void
  /** Closes what is open, and goes back to a row. */
  closeAll: (back: Place) => void
  openPanel: (panel: 'move' | 'keys') => void
}

/** The keys of the script, and what they do with the selected row. */
export function useScriptKeys({ select, focus, toggle, typeBelow, closeAll, openPanel }: Pane) {
  const draft = useDraft()
  const script = useScript()
  const folds = useFolded()
  /** Acts, and goes to the row that is selected then; a question that is asked keeps the focus. */
  const after = (act: () => void) => {
    act()
    if (!script.doomed.value) focus(draft.selected)
  }
  function step(place: Place, by: number, stretch = false) {
    const next = folds.lineAt(place, by)
    if (next) select(next.address, stretch ? 'stretch' : 'only')
  }
  /** By key, with Alt (`alt+`), Control (`ctrl+`) and Shift (`shift+`) before it. */
  const KEYS: Record<string, (place: Place) => void> = {
    ArrowDown: p => step(p, 1),
    ArrowUp: p => step(p, -1),
    'shift+ArrowDown': p => step(p, 1, true),
    'shift+ArrowUp': p => step(p, -1, true),
    ArrowLeft: p => select(folds.foldAround(p)),
    ArrowRight: p => folds.fold(p.address, false),
    Home: () => select(draft.places[0]?.address ?? null),
    End: () => select(draft.places.at(-1)?.address ?? null),
    Enter: p => typeBelow(p.address),
    ' ': p => toggle(p.address),
    F2: p => toggle(p.address),
    Escape: p => closeAll(p),
    Delete: () => after(script.remove),
    'ctrl+d': () => after(script.duplicate),
    'ctrl+g': () => after(script.group),
    'ctrl+a': () => script.selectAll(draft.places.map(p => p.address)),
    'alt+ArrowUp': () => after(() => script.moveBy(-1)),
    'alt+ArrowDown': () => after(() => script.moveBy(1)),
    'alt+m': () => openPanel('move'),
    '?': () => openPanel('keys'),
  }
  const WITHOUT_SELECTION: Record<string, () => void> = {
    ArrowDown: () => select(draft.places[0]?.address ?? null),
    Enter: () => typeBelow(draft.places.at(-1)?.address ?? 'end'),
  }
  /** Does what a key says; false where it is not the script's. */
  function act(event: KeyboardEvent): boolean {
    const place = script.placeAt(draft.selected)
    // Indents or outdents; Tab that does neither goes on to the next control.
    if (place && event.key === 'Tab') {
      const isMoved = event.shiftKey ? script.outdent() : script.indent()
      if (isMoved) focus(draft.selected)
      return isMoved
    }
    const known = place ? KEYS[nameOf(event)] : undefined
    if (place) known?.(place)
    const begin = place ? undefined : WITHOUT_SELECTION[event.key]
    begin?.()
    return (known ?? begin) !== undefined
  }
  const onKey = (event: KeyboardEvent) => {
    if (!isElsewhere(event) && act(event)) event.preventDefault()
  }
  return { onKey, after }
}

function nameOf(event: KeyboardEvent): string {
  const alt = event.altKey ? 'alt+' : ''
  const control = event.ctrlKey || event.metaKey ? 'ctrl+' : ''
  const shift = event.shiftKey && event.key.length > 1 ? 'shift+' : ''
  return `${alt}${control}${shift}${event.key}`
}

/** Whether something happened in a field or panel, not in the rows. */
export const isElsewhere = (event: Event): boolean =>
  event.target instanceof HTMLElement && event.target.closest('.editor, .new-line, .panel') !== null

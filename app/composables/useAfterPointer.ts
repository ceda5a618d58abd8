/**
 * Runs something once no pointer is pressed. An error that appears when a field is left moves what stands below it; while a
 * press is on its way to a button there, that would make the press miss.
 */
export function useAfterPointer(): (then: () => void) => void {
  const pointer = usePointer()
  onMounted(pointer.watchPointer)
  return then => {
    if (!pointer.isDown) return then()
    // The click follows the release within the same task; a timer comes after it.
    window.addEventListener('pointerup', () => setTimeout(then), { once: true })
  }
}

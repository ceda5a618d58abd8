let isDown = false
let isWatching = false

/**
 * Runs something once no pointer is pressed. An error that appears when a field is left moves what stands below it; while a
 * press is on its way to a button there, that would make the press miss.
 */
export function useAfterPointer(): (then: () => void) => void {
  onMounted(() => {
    if (isWatching) return
    isWatching = true
    window.addEventListener(
      'pointerdown',
      () => {
        isDown = true
      },
      true,
    )
    for (const end of ['pointerup', 'pointercancel'])
      window.addEventListener(
        end,
        () => {
          isDown = false
        },
        true,
      )
  })
  return then => {
    if (!isDown) return then()
    // The click follows the release within the same task; a timer comes after it.
    window.addEventListener('pointerup', () => setTimeout(then), { once: true })
  }
}

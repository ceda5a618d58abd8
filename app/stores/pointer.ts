import { defineStore } from 'pinia'

/** Whether a pointer is pressed on the page. */
export const usePointer = defineStore('pointer', () => {
  const isDown = ref(false)
  const isWatching = ref(false)
  function watchPointer() {
    if (isWatching.value) return
    isWatching.value = true
    const press = () => {
      isDown.value = true
    }
    const release = () => {
      isDown.value = false
    }
    window.addEventListener('pointerdown', press, true)
    for (const end of ['pointerup', 'pointercancel']) window.addEventListener(end, release, true)
  }
  return { isDown, watchPointer }
})

import { useResizeObserver } from '@vueuse/core'

/** Tells the page around this one how high it is, where it stands inside another (public/embed.js). Nothing else is told. */
export function useFrameHeight() {
  onMounted(() => {
    if (window.parent === window) return
    const page = document.querySelector('main')
    useResizeObserver(page, () => {
      const height = page?.getBoundingClientRect().bottom ?? 0
      window.parent.postMessage({ tobbin: 'height', height: Math.ceil(height + window.scrollY) }, '*')
    })
  })
}

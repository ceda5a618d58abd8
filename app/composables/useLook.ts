import type { Look } from '#core/form/look'

/** Puts the style sheet of a look on the page, for what has the class `looked`. `css`: what makes it, which not every page brings. */
export function useLook(look: () => Look | undefined, css: (look: Look) => string) {
  const nonce = ownNonce()
  const style = computed(() => {
    const own = look()
    return own ? [{ key: 'look', innerHTML: css(own), nonce }] : []
  })
  useHead({ style })
}

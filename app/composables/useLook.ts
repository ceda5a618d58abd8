import type { Look } from '#core/form/look'
import { lookCss } from '~/theme/lookCss'

/** Puts the style sheet of a look on the page, for what has the class `looked`. */
export function useLook(look: () => Look | undefined) {
  const nonce = ownNonce()
  const style = computed(() => {
    const own = look()
    return own ? [{ key: 'look', innerHTML: lookCss(own), nonce }] : []
  })
  useHead({ style })
}

/** Where the address of a form keeps which version was opened last on this device. */
const placeOf = (link: string) => `tobbin-begun-${link}`

/**
 * The link of an earlier version of a form of which this device still keeps answers that were not sent; null where there are none.
 * @param link the address that was opened
 * @param token that of the version behind it
 */
export function useBegunBefore(link: string, token: string) {
  const before = ref<string | null>(null)
  onMounted(() => {
    if (link === token) return
    const last = localStorage.getItem(placeOf(link))
    const isEarlier = last !== null && last !== token && isKeptFor(last)
    // Who has begun this one as well goes on with it.
    if (isEarlier && !isKeptFor(token)) before.value = last
    else keepLast(link, token)
  })
  return before
}

function keepLast(link: string, token: string) {
  try {
    localStorage.setItem(placeOf(link), token)
  } catch {
    // A device that keeps nothing has nothing of an earlier version either.
  }
}

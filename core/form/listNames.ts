/** So many names are told; of more, how many there are. */
const MOST_NAMED = 3

/** Names as a list in a sentence; of many, the first ones and how many more. */
export function listNames(names: readonly string[]): string {
  const more = names.length - MOST_NAMED
  const shown = more > 0 ? [...names.slice(0, MOST_NAMED), `${more} more`] : names
  return new Intl.ListFormat('en').format(shown)
}

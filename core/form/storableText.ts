/** Halves of surrogate pairs, which are no text. */
const HALF = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g

const cleanText = (text: string): string => text.replace(HALF, '\uFFFD').replaceAll('\0', '')

/** JSON with every text as it can be stored: without NUL, and with U+FFFD for half a surrogate pair. The same value where nothing is to be done. */
export function withStorableTexts<T>(value: T): T
export function withStorableTexts(value: unknown): unknown {
  if (typeof value === 'string') return cleanText(value)
  if (Array.isArray(value)) {
    const cleaned: unknown[] = value.map(inner => withStorableTexts<unknown>(inner))
    return cleaned.every((inner, i) => inner === value[i]) ? value : cleaned
  }
  if (typeof value !== 'object' || value === null) return value
  const entries = Object.entries(value)
  const cleaned = entries.map(([key, inner]): [string, unknown] => [
    cleanText(key),
    withStorableTexts<unknown>(inner),
  ])
  const isSame = cleaned.every(([key, inner], i) => key === entries[i]?.[0] && inner === entries[i]?.[1])
  return isSame ? value : Object.fromEntries(cleaned)
}

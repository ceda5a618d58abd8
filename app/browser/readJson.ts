/** A text as JSON; null when there is none, or it is none. */
export function readJson(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null')
  } catch {
    return null
  }
}

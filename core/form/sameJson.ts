/** Whether two parts of a definition say the same: JSON values, whatever the order of their keys; a key without a value is none. */
export function isSameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  const [one, other] = [entriesOf(a), entriesOf(b)]
  return one.size === other.size && [...one].every(([key, value]) => isSameJson(value, other.get(key)))
}

const entriesOf = (value: object): Map<string, unknown> =>
  new Map(Object.entries(value).filter(([, v]) => v !== undefined))

/** A key under which one sending is stored once, however often it is sent. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return Array.from(bytes, b => b.toString(16).padStart(2, '0')).join('')
}

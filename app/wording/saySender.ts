import type { ResponseDetails } from '#shared/api/responses'

/** Of whom a response is, by which way it came, and when it was corrected: what follows when it was sent; empty where none of it is known. */
export function saySender({ by, way, correctedAt }: ResponseDetails): string {
  const parts = [
    by === '' ? '' : `by ${by}`,
    way === '' ? '' : `by the link “${way}”`,
    correctedAt === null ? '' : `corrected ${readableDay(correctedAt)}`,
  ]
  return parts
    .filter(Boolean)
    .map(part => `, ${part}`)
    .join('')
}

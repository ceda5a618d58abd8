/** The ground of pages whose look has no tone, by day. */
export const USUAL_GROUND = '#f4f1ea'
/** The least contrast of text with its ground (WCAG 2.2, 1.4.3). */
export const LEAST_CONTRAST = 4.5

/** Red, green and blue of a colour, 0 to 255. */
const channelsOf = (colour: string): [number, number, number] => [
  Number.parseInt(colour.slice(1, 3), 16),
  Number.parseInt(colour.slice(3, 5), 16),
  Number.parseInt(colour.slice(5, 7), 16),
]

/** The relative luminance of a colour, 0 to 1 (WCAG 2.2). */
function luminanceOf(colour: string): number {
  const [r, g, b] = channelsOf(colour).map(channel => {
    const share = channel / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0)
}

/** The contrast of two colours, 1 to 21 (WCAG 2.2). */
export function contrastOf(a: string, b: string): number {
  const [one, other] = [luminanceOf(a), luminanceOf(b)]
  return (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05)
}

/** Black or white, whichever is read more easily on a colour: at least 4.58 to 1. */
export const inkOn = (ground: string): '#000000' | '#ffffff' =>
  contrastOf(ground, '#000000') >= contrastOf(ground, '#ffffff') ? '#000000' : '#ffffff'

/** A colour between two: 0 the one, 1 the other. */
export function mixColours(one: string, other: string, share: number): string {
  const [a, b] = [channelsOf(one), channelsOf(other)]
  const mixed = a.map((channel, i) => Math.round(channel + ((b[i] ?? 0) - channel) * share))
  return `#${mixed.map(channel => channel.toString(16).padStart(2, '0')).join('')}`
}

/** A colour brought towards black or white until it is read on a ground; itself where it is. */
export function readableOn(colour: string, ground: string): string {
  const ink = inkOn(ground)
  for (let share = 0; share <= 1; share += 0.05) {
    const found = mixColours(colour, ink, share)
    if (contrastOf(found, ground) >= LEAST_CONTRAST) return found
  }
  return ink
}

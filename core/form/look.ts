import { z } from 'zod'
import { Label } from './fields'
import { LIMITS } from './limits'

/** A colour of the web: six hexadecimal digits behind “#”. */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #1f6f78')
/** A small picture in the definition itself (RFC 2397), of a kind that can hold no script; `alt` says what it shows. */
export const Picture = z.strictObject({
  data: z
    .string()
    .max(LIMITS.pictureText, 'the picture is too large')
    .regex(/^data:image\/(?:png|jpeg|webp);base64,[A-Za-z0-9+/]+=*$/, 'a picture is a PNG, JPEG or WebP'),
  alt: Label.optional(),
})

/**
 * How a form looks to respondents. `name`: under which the workspace keeps it; `accent`: buttons, marks, links; `tone`: the page's ground,
 * light or dark; `corner`: the radius of corners in pixels. What is left out is as the application has it.
 */
export const Look = z.strictObject({
  name: Label.optional(),
  accent: Colour.optional(),
  tone: Colour.optional(),
  logo: Picture.optional(),
  heading: Picture.optional(),
  width: z.enum(['narrow', 'wide']).optional(),
  corner: z.int().min(0).max(LIMITS.corner).optional(),
  textSize: z.enum(['small', 'large']).optional(),
})

export type Picture = z.infer<typeof Picture>
export type Look = z.infer<typeof Look>

/** The ground of pages whose look has no tone, by day and in the dark. */
export const GROUNDS = { light: '#f4f1ea', dark: '#171f1d' } as const
/** The least contrast of text with its ground (WCAG 2.2, 1.4.3). */
export const LEAST_CONTRAST = 4.5

/** Red, green and blue of a colour, 0 to 255. */
export const channelsOf = (colour: string): [number, number, number] => [
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

/** A colour brought towards black or white until it is read on a ground; itself where it is. */
export function readableOn(colour: string, ground: string): string {
  const ink = channelsOf(inkOn(ground))
  for (let share = 0; share <= 1; share += 0.05) {
    const mixed = channelsOf(colour).map((channel, i) =>
      Math.round(channel + ((ink[i] ?? 0) - channel) * share),
    )
    const found = `#${mixed.map(channel => channel.toString(16).padStart(2, '0')).join('')}`
    if (contrastOf(found, ground) >= LEAST_CONTRAST) return found
  }
  return inkOn(ground)
}

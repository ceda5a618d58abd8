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

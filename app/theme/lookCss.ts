import { contrastOf, inkOn, mixColours as mix, readableOn } from '#core/form/colours'
import type { Look } from '#core/form/look'
import { PALETTE, variables, type Colours } from './palette'

/** What a look is put on: said several times, so that it goes before the application's own colours. */
const LOOKED = '.looked.looked.looked.looked'
/** Vuetify sets its colours again wherever a theme begins. */
const within = (scope: string) => [scope, `${scope} .v-theme--light`, `${scope} .v-theme--dark`].join(',')

const WIDTHS = { narrow: 460, wide: 880 } as const
const SIZES = { small: 0.9, large: 1.15 } as const

/** A form's look as style sheet, for whatever has the class `looked`. Colours are brought to where they can be read. */
export function lookCss(look: Look): string {
  const { corner, width, textSize } = look
  const sizes = [
    width ? `--page-width:${WIDTHS[width]}px;` : '',
    corner === undefined ? '' : `--corner:${corner}px;`,
    textSize ? `--text-zoom:${SIZES[textSize]};` : '',
  ].join('')
  return `${coloursOf(look)}${LOOKED}{${sizes}}`
}

function coloursOf({ accent, tone }: Look): string {
  if (tone !== undefined) {
    const scheme = inkOn(tone) === '#000000' ? 'light' : 'dark'
    const colours = withAccent(onTone(tone, PALETTE[scheme]), accent)
    return `${within(LOOKED)}{${variables(colours)}color-scheme:${scheme}}`
  }
  if (accent === undefined) return ''
  const light = variables(withAccent(PALETTE.light, accent))
  const dark = variables(withAccent(PALETTE.dark, accent))
  const chosen = ":root[data-theme='dark']"
  return [
    `${within(LOOKED)}{${light}}`,
    `${within(`${chosen}${LOOKED}`)},${within(`${chosen} ${LOOKED}`)}{${dark}}`,
    `@media (prefers-color-scheme:dark){${within(`:root:not([data-theme])${LOOKED}`)},${within(`:root:not([data-theme]) ${LOOKED}`)}{${dark}}}`,
  ].join('')
}

/** A palette with an accent in place of its own. */
function withAccent(colours: Colours, accent: string | undefined): Colours {
  if (accent === undefined) return colours
  const verdigris = readableOn(accent, colours.linen)
  const wash = mix(colours.linen, verdigris, 0.12)
  return { ...colours, verdigris, 'verdigris-wash': wash, 'on-action': inkOn(verdigris) }
}

/** A palette on another ground: ink, lines and marks are made to stand out from it. */
function onTone(tone: string, colours: Colours): Colours {
  const ink = contrastOf(colours.ink, tone) >= 7 ? colours.ink : inkOn(tone)
  const read = (colour: string) => readableOn(colour, tone)
  return {
    ...colours,
    ink,
    linen: tone,
    paper: tone,
    slate: read(mix(ink, tone, 0.3)),
    line: mix(tone, ink, 0.2),
    soft: mix(tone, ink, 0.06),
    'control-line': mix(tone, ink, 0.5),
    verdigris: read(colours.verdigris),
    'verdigris-wash': mix(tone, colours.verdigris, 0.12),
    madder: read(colours.madder),
    'madder-wash': mix(tone, colours.madder, 0.08),
    weld: read(colours.weld),
    'weld-wash': mix(tone, colours.weld, 0.12),
    woad: read(colours.woad),
    'woad-wash': mix(tone, colours.woad, 0.12),
  }
}

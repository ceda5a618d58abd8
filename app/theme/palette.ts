/** The colours of Tobbin, named after dyes, in both themes: the one place where they stand. */
export const PALETTE = {
  light: {
    linen: '#F4F1EA',
    paper: '#FFFDF8',
    ink: '#20302D',
    slate: '#5B6965',
    line: '#D8D2C4',
    soft: '#EDE8DC',
    verdigris: '#14655A',
    'verdigris-wash': '#E3EDE8',
    'on-action': '#FFFDF8',
    madder: '#AE3F26',
    'madder-wash': '#FBF1EC',
    weld: '#855C06',
    'weld-wash': '#F6EAD2',
    woad: '#2C5A87',
    'woad-wash': '#E4EDF5',
    'control-line': '#8B958F',
  },
  dark: {
    linen: '#171F1D',
    paper: '#1E2826',
    ink: '#E9EBE4',
    slate: '#A9B5B0',
    line: '#394642',
    soft: '#25312E',
    verdigris: '#6CC5B3',
    'verdigris-wash': '#21403A',
    'on-action': '#10201D',
    madder: '#F0937A',
    'madder-wash': '#3A2620',
    weld: '#DDB25A',
    'weld-wash': '#3B3120',
    woad: '#8DBBE6',
    'woad-wash': '#22344A',
    'control-line': '#7B8A85',
  },
} as const

export type Colours = Readonly<Record<keyof (typeof PALETTE)['light'], string>>

/** What Vuetify calls our colours. */
const ROLES = {
  background: 'linen',
  surface: 'paper',
  'surface-variant': 'soft',
  primary: 'verdigris',
  secondary: 'slate',
  error: 'madder',
  warning: 'weld',
  info: 'woad',
  success: 'verdigris',
  'on-background': 'ink',
  'on-surface': 'ink',
  'on-surface-variant': 'ink',
  'on-primary': 'on-action',
  'on-secondary': 'on-action',
  'on-error': 'on-action',
  'on-warning': 'on-action',
  'on-info': 'on-action',
  'on-success': 'on-action',
} as const satisfies Record<string, keyof Colours>

/** The palette as style sheet, for our own marks and for Vuetify: the system's theme, unless the page has one of its own. */
export function paletteCss(): string {
  const light = variables(PALETTE.light)
  const dark = variables(PALETTE.dark)
  return [
    `${everywhere(':root')}{${light}color-scheme:light}`,
    `${everywhere(":root[data-theme='dark']")}{${dark}color-scheme:dark}`,
    `@media (prefers-color-scheme:dark){${everywhere(':root:not([data-theme])')}{${dark}color-scheme:dark}}`,
  ].join('')
}

/** Vuetify sets its colours again wherever a theme begins. */
const everywhere = (root: string) => `${root},${root} .v-theme--light,${root} .v-theme--dark`

/** Colours as declarations of a style sheet, under our names and Vuetify’s. */
export function variables(colours: Colours): string {
  const own = Object.entries(colours).map(([name, value]) => `--${name}:${value};`)
  const roles = Object.entries(ROLES).map(([role, name]) => `--v-theme-${role}:${triplet(colours[name])};`)
  return [...own, ...roles].join('')
}

/** “#14655A” as “20,101,90”. */
const triplet = (hex: string): string =>
  [1, 3, 5].map(at => Number.parseInt(hex.slice(at, at + 2), 16)).join()

/** The palette as a theme of Vuetify. */
export const vuetifyTheme = (name: 'light' | 'dark') => ({
  dark: name === 'dark',
  colors: Object.fromEntries(Object.entries(ROLES).map(([role, colour]) => [role, PALETTE[name][colour]])),
})

import type { VuetifyOptions } from 'vuetify'

/** A line around, no fill, the label above it: how every field stands. */
const FIELD = { variant: 'outlined', density: 'compact', hideDetails: true, rounded: 'sm' } as const

/** How Vuetify’s components stand in Tobbin unless one is told otherwise: square, dense, without shadow or ripple. */
export const DEFAULTS: NonNullable<VuetifyOptions['defaults']> = {
  global: { ripple: false, elevation: 0 },
  VAlert: { variant: 'tonal', density: 'compact', rounded: 'sm' },
  VBtn: { variant: 'outlined', rounded: 'sm' },
  VBtnToggle: { variant: 'text', mandatory: true, density: 'compact', rounded: 'sm' },
  VTextField: FIELD,
  VTextarea: { ...FIELD, rows: 2 },
  VNumberInput: { ...FIELD, controlVariant: 'hidden' },
  VFileInput: { ...FIELD, prependIcon: '' },
  VSelect: { ...FIELD, menuProps: { transition: false } },
  VAutocomplete: { ...FIELD, menuProps: { transition: false }, autoSelectFirst: true },
  VTabs: { density: 'compact', sliderTransition: 'fade' },
  VChip: { variant: 'outlined', density: 'compact', rounded: 'sm' },
  VHotkey: { displayMode: 'symbol', variant: 'outlined' },
  VCheckbox: { density: 'compact', hideDetails: true },
  VCheckboxBtn: { density: 'compact' },
  VRadio: { density: 'compact' },
  VRadioGroup: { density: 'compact', hideDetails: true },
  VList: { density: 'compact' },
  VMenu: { transition: false },
  VTable: { density: 'compact' },
  VCard: { rounded: 'sm', variant: 'outlined' },
  VEmptyState: { justify: 'start', textWidth: 460 },
  VSnackbarQueue: { timeout: 6000, transition: false },
  VSkeletonLoader: { boilerplate: false },
  VDialog: { maxWidth: 560, transition: false },
  VTooltip: { openDelay: 300, transition: false },
}

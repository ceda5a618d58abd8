import type { VuetifyOptions } from 'vuetify'
import { mdi } from 'vuetify/iconsets/mdi-svg'
import { DEFAULTS } from './defaults'
import { ICONS } from './icons'
import { ownLocale } from './locale'
import { vuetifyTheme } from './palette'

/** Vuetify as Tobbin wants it: our colours, our defaults, icons by name. Made anew for each instance; `cspNonce` marks its styles as ours. */
export const vuetifyOptions = (cspNonce = ''): VuetifyOptions => ({
  locale: { adapter: ownLocale() },
  ssr: { clientWidth: 1280, clientHeight: 800 },
  icons: { defaultSet: 'mdi', aliases: ICONS, sets: { mdi } },
  theme: {
    cspNonce,
    defaultTheme: 'light',
    utilities: false,
    themes: { light: vuetifyTheme('light'), dark: vuetifyTheme('dark') },
  },
  defaults: DEFAULTS,
})

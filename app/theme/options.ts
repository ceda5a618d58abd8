import type { VuetifyOptions } from 'vuetify'
import { mdi } from 'vuetify/iconsets/mdi-svg'
import { en } from 'vuetify/locale'
import { DEFAULTS } from './defaults'
import { ICONS } from './icons'
import { vuetifyTheme } from './palette'

/** Vuetify as Tobbin wants it: our colours, our defaults, icons by name. Made anew for each instance; `cspNonce` marks its styles as ours. */
export const vuetifyOptions = (cspNonce = ''): VuetifyOptions => ({
  // A copy for each instance: watchers of shared messages would stay in the server's memory.
  locale: { locale: 'en', messages: { en: structuredClone(en) } },
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

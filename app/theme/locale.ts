import { shallowRef } from 'vue'
import type { LocaleInstance } from 'vuetify'
import { en } from 'vuetify/locale'

const PREFIX = '$vuetify.'
const isBranch = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null

/** The text at a path such as `dataFooter.pageText`. */
function textAt(path: string): string {
  const found = path
    .split('.')
    .reduce<unknown>((branch, key) => (isBranch(branch) ? branch[key] : undefined), en)
  if (typeof found !== 'string') throw new Error(`The interface library has no text “${path}”.`)
  return found
}

const filled = (text: string, params: readonly unknown[]) =>
  text.replace(/\{(\d+)\}/g, (_, index: string) => String(params[Number(index)]))

/**
 * The library's own texts in English. In place of its adapter, which watches the messages of each instance: on the server these watchers
 * stayed in the memory for ever, and cost each page time.
 */
export function ownLocale(): LocaleInstance {
  const locale: LocaleInstance = {
    name: 'english',
    current: shallowRef('en'),
    fallback: shallowRef('en'),
    messages: shallowRef({}),
    decimalSeparator: shallowRef('.'),
    numericGroupSeparator: shallowRef(','),
    t: (key, ...params) => filled(key.startsWith(PREFIX) ? textAt(key.slice(PREFIX.length)) : key, params),
    n: value => value.toLocaleString('en'),
    provide: () => locale,
  }
  return locale
}

import { defineStore } from 'pinia'

/** Light or dark: the system's, as long as nobody chose. */
export const useSystemTheme = defineStore('systemTheme', () => {
  const name = ref<'light' | 'dark'>('light')
  return { name }
})

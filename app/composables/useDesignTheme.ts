import { usePreferredDark } from '@vueuse/core'

/** Light or dark for the designers' screens: the system's, until one is chosen. */
export function useDesignTheme() {
  const chosen = useCookie<'light' | 'dark' | null>('tobbin-theme', {
    default: () => null,
    maxAge: 31_536_000,
  })
  const system = useSystemTheme()
  const isDark = usePreferredDark()
  onMounted(() =>
    watch(
      isDark,
      dark => {
        system.name = dark ? 'dark' : 'light'
      },
      { immediate: true },
    ),
  )
  const name = computed(() => chosen.value ?? system.name)
  useHead({ htmlAttrs: { 'data-theme': computed(() => chosen.value ?? undefined) } })
  return {
    name,
    turn: () => {
      chosen.value = name.value === 'dark' ? 'light' : 'dark'
    },
  }
}

/** Light or dark for the designers' screens: the system's, until one is chosen. */
export function useDesignTheme() {
  const chosen = useCookie<'light' | 'dark' | null>('tobbin-theme', {
    default: () => null,
    maxAge: 31_536_000,
  })
  const system = useSystemTheme()
  // By hand, for the respondent's page brings this.
  onMounted(() => {
    const media = window.matchMedia('(prefers-color-scheme: dark)')
    const follow = () => {
      system.name = media.matches ? 'dark' : 'light'
    }
    follow()
    media.addEventListener('change', follow)
    onScopeDispose(() => media.removeEventListener('change', follow))
  })
  const name = computed(() => chosen.value ?? system.name)
  useHead({ htmlAttrs: { 'data-theme': computed(() => chosen.value ?? undefined) } })
  return {
    name,
    turn: () => {
      chosen.value = name.value === 'dark' ? 'light' : 'dark'
    },
  }
}

import type { Finding, Severity } from '#core/prove/finding'

/** What a finding weighs to somebody who decides on it. */
export type Weight = Severity | 'accepted'

/** Which findings are looked at, how they are grouped, and which one is open. */
export function useFindingsView() {
  const draft = useDraft()
  const findings = useFindings()
  const weight = ref<Weight | 'all'>('all')
  /** Findings stand together by where they are, or by what kind they are. */
  const grouped = ref<'place' | 'kind'>('place')
  const wanted = ref('')
  const section = ref<number | 'all'>('all')
  const chosen = ref(0)

  const all = computed(() => findings.verdict?.findings ?? [])
  const sectionOf = (f: Finding) => draft.places.find(p => p.address === f.address)?.section ?? -1
  const weightOf = (f: Finding): Weight => (findings.accepted.has(f) ? 'accepted' : f.severity)
  function groupOf(f: Finding): string {
    if (grouped.value === 'kind') return f.code
    return draft.form?.sections[sectionOf(f)]?.title ?? 'The form, its lists and turns'
  }
  const indexOfSection = (title: string) => draft.form?.sections.findIndex(s => s.title === title) ?? -1
  function isShown(f: Finding): boolean {
    if (weight.value !== 'all' && weightOf(f) !== weight.value) return false
    if (section.value !== 'all' && sectionOf(f) !== section.value) return false
    const text = `${f.sentence} ${f.at ?? ''} ${f.code}`.toLowerCase()
    return text.includes(wanted.value.trim().toLowerCase())
  }
  /** In groups, the worst first within each; accepted ones last. */
  const shown = computed(() => {
    const found = all.value.filter(isShown)
    const groups = [...new Set(found.map(groupOf))]
    if (grouped.value === 'place') groups.sort((a, b) => indexOfSection(a) - indexOfSection(b))
    const isAccepted = (f: Finding) => Number(findings.accepted.has(f))
    return groups.flatMap(g =>
      found.filter(f => groupOf(f) === g).toSorted((a, b) => isAccepted(a) - isAccepted(b)),
    )
  })
  const open = computed(() => shown.value[Math.min(chosen.value, shown.value.length - 1)])
  const bySection = computed(() =>
    (draft.form?.sections ?? []).map((s, i) => ({
      i,
      title: s.title,
      count: all.value.filter(f => sectionOf(f) === i).length,
    })),
  )
  function travel(by: number) {
    chosen.value = Math.max(0, Math.min(shown.value.length - 1, chosen.value + by))
  }
  const filter = { weight, grouped, wanted, section, chosen }
  return { ...filter, all, shown, open, bySection, weightOf, groupOf, travel }
}
export type FindingsView = ReturnType<typeof useFindingsView>

import { defineStore } from 'pinia'
import type { Answer, Answers } from '#core/fill/answers'
import { fill } from '#core/fill/fill'
import { planOf } from '#core/fill/plan'
import type { Address } from '#core/form/walk'
import { useDraft } from './draft'

/** The day here, as ISO date. */
export const dayHere = (now = new Date()): string => `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`

/** The live form beside the design: practice answers survive every edit, and reloads. */
export const useRehearsal = defineStore('rehearsal', () => {
  const draft = useDraft()
  const answers = shallowRef<Answers>({})
  const section = ref(0)
  /** What a witness was opened for; it stands out in the rehearsal. */
  const lit = ref<Address | null>(null)
  const today = dayHere()
  const plan = computed(() => draft.form ? planOf(draft.form) : null)
  const filled = computed(() => plan.value ? fill(plan.value, answers.value, today) : null)
  const key = computed(() => `tobbin-practice-${draft.id}`)

  function restore() {
    answers.value = {}
    section.value = 0
    lit.value = null
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(key.value) ?? '{}')
      if (typeof kept === 'object' && kept !== null) answers.value = Object.fromEntries(Object.entries(kept).filter((e): e is [string, Answer] => e[1] === null || ['string', 'number', 'boolean'].includes(typeof e[1])))
    }
    catch {
      localStorage.removeItem(key.value) // not ours any more: begin with none
    }
  }

  const keep = () => localStorage.setItem(key.value, JSON.stringify(answers.value))

  function answer(code: string, value: Answer) {
    answers.value = { ...answers.value, [code]: value }
    keep()
  }

  function startAfresh() {
    answers.value = {}
    section.value = filled.value?.path[0] ?? 0
    lit.value = null
    keep()
  }

  /** Opens a witness: its answers, at the section of the thing concerned. */
  function open(witness: Answers, at: Address | null) {
    answers.value = { ...witness }
    lit.value = at
    const place = draft.places.find(p => p.address === at)
    const wanted = place?.section ?? 0
    section.value = filled.value?.path.filter(i => i <= wanted).at(-1) ?? 0
    keep()
  }

  return { answers, section, lit, today, plan, filled, restore, answer, startAfresh, open }
})

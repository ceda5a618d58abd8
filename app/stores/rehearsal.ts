import { defineStore } from 'pinia'
import { isAnswer, type Answer, type Answers } from '#core/form/answers'
import { fill } from '#core/fill/fill'
import { pagesOf, type Page } from '#core/fill/pages'
import { seededRandom } from '#core/fill/draw'
import { planOf } from '#core/fill/plan'
import { type Plan } from '#core/fill/planned'
import { replan } from '#core/fill/replan'
import { drawPlausibleAnswers } from '#core/fill/plausible'
import type { Address } from '#core/form/walk'
import { placeReader } from '#core/form/threads'
import type { Finding } from '#core/prove/finding'
import { useDraft } from './draft'

/** The day here, as ISO date. */
export const dayHere = (now = new Date()): string =>
  `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`

/** The live form beside the design: practice answers survive every edit, and reloads. */
export const useRehearsal = defineStore('rehearsal', () => {
  const draft = useDraft()
  const answers = shallowRef<Answers>({})
  const place = ref<Page>({ section: 0, only: null })
  /** What a witness was opened for; it stands out in the rehearsal. */
  const lit = ref<Address | null>(null)
  /** The rules that a finding is about, while its witness is open. */
  const concerned = shallowRef<ReadonlySet<Address>>(new Set())
  /** The day that is rehearsed: today, unless a witness needs another. */
  const today = ref(dayHere())
  const plan = computed<Plan | null>(before =>
    !draft.form ? null : before ? replan(before, draft.form) : planOf(draft.form),
  )
  const filled = computed(() => (plan.value ? fill(plan.value, answers.value, today.value) : null))
  const key = computed(() => `tobbin-practice-${draft.id}`)

  /** Done with the witness: nothing stands out any more, and it is today again. */
  function unlight() {
    lit.value = null
    concerned.value = new Set()
    today.value = dayHere()
  }

  function restore() {
    answers.value = {}
    place.value = { section: 0, only: null }
    unlight()
    restoreSets()
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(key.value) ?? '{}')
      if (typeof kept === 'object' && kept !== null)
        answers.value = Object.fromEntries(
          Object.entries(kept).filter((e): e is [string, Answer] => isAnswer(e[1])),
        )
    } catch {
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
    place.value = { section: filled.value?.path[0] ?? 0, only: null }
    unlight()
    keep()
  }

  /** Named sets of practice answers, kept by form in this browser. */
  const sets = ref<{ name: string; answers: Answers }[]>([])
  const setsKey = computed(() => `tobbin-sets-${draft.id}`)
  const keepSets = () => localStorage.setItem(setsKey.value, JSON.stringify(sets.value))
  function saveSet(name: string) {
    sets.value = [...sets.value.filter(s => s.name !== name), { name, answers: answers.value }].toSorted(
      (a, b) => a.name.localeCompare(b.name),
    )
    keepSets()
  }
  function removeSet(name: string) {
    sets.value = sets.value.filter(s => s.name !== name)
    keepSets()
  }
  function openSet(name: string) {
    const found = sets.value.find(s => s.name === name)
    if (!found) return
    startAfresh()
    answers.value = found.answers
    keep()
  }
  function restoreSets() {
    sets.value = []
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(setsKey.value) ?? '[]')
      if (Array.isArray(kept))
        sets.value = kept.filter(
          (s: unknown): s is { name: string; answers: Answers } =>
            typeof s === 'object' &&
            s !== null &&
            'name' in s &&
            typeof s.name === 'string' &&
            'answers' in s &&
            isAnswer(s.answers) &&
            typeof s.answers === 'object',
        )
    } catch {
      localStorage.removeItem(setsKey.value) // not ours any more: begin with none
    }
  }

  /** Fills what is not answered with likely answers; false when no way through was found. */
  function fillRest(): boolean {
    if (!plan.value) return false
    const next = seededRandom(Date.now() % 2 ** 31)
    const given = Object.fromEntries(Object.entries(answers.value).filter(([, v]) => v !== null))
    for (let attempt = 0; attempt < 10; attempt++) {
      const likely = drawPlausibleAnswers(plan.value, given, today.value, next, undefined, 0)
      if (!likely) continue
      answers.value = { ...answers.value, ...likely }
      keep()
      return true
    }
    return false
  }

  /** Opens the witness of a finding: its answers on its day, the rules concerned lit. A promise stands nowhere: what it names is lit. */
  function show({ witness, address, conflict, today: day }: Finding) {
    if (!witness) return
    const namedIn = placeReader(draft.places)
    const concerns = conflict.flatMap(part =>
      part.kind === 'promise'
        ? namedIn(draft.form?.promises?.[part.index]?.holds ?? '').map(p => p.address)
        : [part.address],
    )
    open(witness, address, address ?? concerns.at(-1))
    concerned.value = new Set(concerns)
    if (day) today.value = day
  }

  /** Opens answers at the section of the thing concerned, or of another. */
  function open(witness: Answers, at: Address | null, near = at) {
    unlight()
    answers.value = { ...witness }
    lit.value = at
    const wanted = draft.places.find(p => p.address === near)
    const pages = filled.value ? pagesOf(filled.value) : []
    const reached = pages.filter(p => p.section <= (wanted?.section ?? 0))
    const section = reached.at(-1)?.section ?? 0
    place.value =
      reached.find(p => p.section === section && (p.only === null || p.only >= (wanted?.order ?? 0))) ??
      reached.at(-1) ??
      place.value
    keep()
  }

  return {
    sets,
    saveSet,
    removeSet,
    openSet,
    fillRest,
    answers,
    place,
    lit,
    concerned,
    unlight,
    show,
    today,
    plan,
    filled,
    restore,
    answer,
    startAfresh,
    open,
  }
})

import { defineStore, storeToRefs } from 'pinia'
import { seededRandom } from '#core/fill/draw'
import type { AnswerProblem } from '#core/fill/fill'
import { pagesOf, type Page } from '#core/fill/pages'
import { drawRest } from '#core/fill/plausible'
import type { Answers } from '#core/form/answers'
import type { Address } from '#core/form/walk'
import type { Finding } from '#core/prove/finding'
import { useDraft } from './draft'
import { useBaton } from './rehearsal/useBaton'
import { useRehearsedFill } from './rehearsal/useRehearsedFill'
import { useAnswerSets } from './rehearsal/useAnswerSets'
import { useRehearsedAnswers } from './rehearsal/useRehearsedAnswers'
import { placesConcerned } from './rehearsal/useWitness'

/** The live form beside the design: practice answers survive every edit, and reloads. */
export const useRehearsal = defineStore('rehearsal', () => {
  const draft = useDraft()
  const { id } = storeToRefs(draft)
  const { openExample, ...rehearsed } = useRehearsedAnswers(id)
  const { answers, place, today, unlight } = rehearsed
  const { sets, removeSet, ...keeping } = useAnswerSets(id)
  /** How often it was started afresh: every frame goes back to its beginning then. */
  const rounds = ref(0)
  const { standing, plan, filled } = useRehearsedFill(answers, today)

  const baton = reactive(useBaton(filled))
  function restore() {
    unlight()
    place.value = { section: 0, only: null }
  }
  function startAfresh() {
    unlight()
    answers.value = {}
    place.value = { section: filled.value?.path[0] ?? 0, only: null }
    rounds.value += 1
    baton.reset()
  }
  const saveSet = (name: string) => keeping.saveSet(name, answers.value)
  function openSet(name: string) {
    const found = sets.value.find(s => s.name === name)
    if (!found) return
    startAfresh()
    answers.value = found.answers
  }
  /** Fills what is not answered with likely answers. @returns null, or what keeps the response from being complete */
  function fillRest(): AnswerProblem | null {
    if (!plan.value) return null
    const drawn = drawRest(plan.value, answers.value, today.value, seededRandom(Date.now() % 2 ** 31))
    if ('defeatedBy' in drawn) return drawn.defeatedBy
    answers.value = { ...answers.value, ...drawn.answers }
    return null
  }
  /** Opens the witness of a finding: its answers on its day, the rules concerned lit. */
  function show(finding: Finding) {
    if (!finding.witness) return
    const concerned = placesConcerned(finding, draft.form, draft.places)
    open(finding.witness, finding.address, finding.address ?? concerned.at(-1))
    rehearsed.concerned.value = new Set(concerned)
    if (finding.today) today.value = finding.today
  }
  /** Opens answers at the section of the thing concerned, or of another. */
  function open(opened: Answers, at: Address | null, near: Address | null | undefined = at) {
    openExample(opened, at)
    const wanted = draft.places.find(p => p.address === near)
    const pages = filled.value ? pagesOf(filled.value) : []
    place.value = pageNear(pages, wanted?.section ?? 0, wanted?.order ?? 0) ?? place.value
  }
  const acting = { restore, startAfresh, fillRest, show, open }
  return { ...rehearsed, rounds, standing, plan, filled, baton, sets, saveSet, removeSet, openSet, ...acting }
})

/** The page of a section on which something stands, or the last one that comes before it. */
function pageNear(pages: readonly Page[], section: number, order: number): Page | undefined {
  const reached = pages.filter(p => p.section <= section)
  const last = reached.at(-1)
  return reached.find(p => p.section === last?.section && (p.only === null || p.only >= order)) ?? last
}

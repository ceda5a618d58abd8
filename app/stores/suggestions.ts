import { useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { applyEdits } from '#core/form/edits'
import { placeProposal, separateProposals, withoutUndone, type Proposal } from '#core/form/proposals'
import { API } from '#shared/api/endpoints'
import type { Outcome, Suggestion, Suggestions } from '#shared/api/suggestions'
import { callApi } from '~/api/callApi'
import { useDraft } from './draft'

const NONE: Suggestions = { open: [], decided: [] }
/** How often to look for what others have suggested or decided, in milliseconds. */
const LOOK_EVERY = 10_000

/** What is said of the draft and proposed for it, and what becomes of that. */
export const useSuggestions = defineStore('suggestions', () => {
  const draft = useDraft()
  const all = shallowRef(NONE)
  const params = () => ({ id: draft.id })

  async function load() {
    const of = draft.id
    const found = await callApi(API.listSuggestions, { params: { id: of } })
    if (of === draft.id) all.value = found
  }
  /** Fetches them now and then, from now on; a look that fails is made up for by the next. */
  function start() {
    all.value = NONE
    const look = () => load().catch(() => {})
    useIntervalFn(
      () => {
        if (document.visibilityState === 'visible') void look()
      },
      LOOK_EVERY,
      { immediateCallback: true },
    )
  }
  /** What was written and not proposed yet, as proposals. */
  function heldProposals(): Proposal[] {
    const base = draft.confirmed
    return base ? separateProposals(base, withoutUndone(base, draft.held)) : []
  }
  /** Proposes what is held; from then on the draft is the one that all see. */
  async function propose(proposals: readonly Proposal[], note: string) {
    await callApi(API.suggest, { params: params(), body: { about: null, note, proposals: [...proposals] } })
    draft.letGo()
    await load()
  }
  async function remark(about: string | null, note: string) {
    await callApi(API.suggest, { params: params(), body: { about, note, proposals: [] } })
    await load()
  }
  async function decide(suggestion: Suggestion, outcome: Outcome | null, reply = '') {
    const path = { ...params(), suggestion: suggestion.id }
    try {
      await callApi(API.decideSuggestion, { params: path, body: { outcome, reply } })
    } finally {
      await load()
    }
  }
  /** Takes a proposal into the draft; it can be undone like one's own edits. */
  async function take(suggestion: Suggestion, reply: string) {
    await draft.flush()
    const { form } = draft
    if (!form || !suggestion.proposal) return
    const placed = placeProposal(form, suggestion.proposal)
    const { inverses } = applyEdits(form, placed)
    await decide(suggestion, 'taken', reply)
    await draft.look()
    draft.rememberTaken(placed, inverses)
  }
  const remarks = computed(() => countRemarks(all.value))
  return { all, load, start, heldProposals, propose, remark, decide, take, remarks }
})

/** How many open ones there are about each row. */
function countRemarks({ open }: Suggestions): ReadonlyMap<string, number> {
  const counts = new Map<string, number>()
  for (const { about } of open) if (about !== null) counts.set(about, (counts.get(about) ?? 0) + 1)
  return counts
}

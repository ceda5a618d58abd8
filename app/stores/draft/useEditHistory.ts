import type { Edit } from '#core/form/edits'
import type { Address } from '#core/form/walk'

/** A step that can be undone: edits made at once, or in quick succession in one field. */
export interface EditStep {
  forward: readonly Edit[]
  back: readonly Edit[]
  merge: string | null
  at: number
  selected: Address | null
}

/** The steps that can be undone, and those that can be made again. */
export interface EditSteps {
  past: readonly EditStep[]
  future: readonly EditStep[]
}

/** Milliseconds within which edits of the same thing are one step. */
const MERGE_WITHIN = 1_500
const MOST_STEPS = 500

/** The steps of a draft, to be undone and made again. */
export function useEditHistory() {
  const past = shallowRef<readonly EditStep[]>([])
  const future = shallowRef<readonly EditStep[]>([])

  /** Remembers a step that was made; one that `merge` says is of the same thing joins the last. */
  function remember(step: EditStep) {
    const last = past.value.at(-1)
    const joins = step.merge !== null && last?.merge === step.merge && step.at - last.at < MERGE_WITHIN
    past.value =
      joins && last
        ? [...past.value.slice(0, -1), joined(last, step)]
        : [...past.value.slice(-MOST_STEPS), step]
    future.value = []
  }
  /** Takes the last step back, if `make` can make its inverse; gives the step. */
  function undo(make: (edits: readonly Edit[]) => boolean): EditStep | null {
    const last = past.value.at(-1)
    if (!last) return null
    past.value = past.value.slice(0, -1)
    if (!make(last.back)) return null
    future.value = [...future.value, last]
    return last
  }
  /** Makes the step that was taken back last once more. */
  function redo(make: (edits: readonly Edit[]) => boolean) {
    const next = future.value.at(-1)
    if (!next) return
    future.value = future.value.slice(0, -1)
    if (make(next.forward)) past.value = [...past.value, { ...next, merge: null }]
  }
  /** Leaves out of every step what `left` says is no longer one's own. */
  function overtake(left: (step: EditStep) => EditStep | null) {
    past.value = past.value.flatMap(step => left(step) ?? [])
    future.value = future.value.flatMap(step => left(step) ?? [])
  }
  function begin(steps: EditSteps | null) {
    past.value = steps?.past ?? []
    future.value = steps?.future ?? []
  }
  return { past, future, remember, undo, redo, overtake, begin }
}

const joined = (last: EditStep, step: EditStep): EditStep => ({
  ...last,
  forward: [...last.forward, ...step.forward],
  back: [...step.back, ...last.back],
  at: step.at,
})

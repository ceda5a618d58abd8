import type { Form } from '#core/form/definition'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import { wordingOf } from '#core/form/names'
import { FormNames } from '#core/form/scope'
import { isThreadedAlike } from '#core/form/threads'
import { listPlaces, type Place } from '#core/form/walk'

/** A change of the draft: what it was, what it became, and the edits that lead from one to the other. */
export interface DraftChange {
  before: Form
  after: Form
  edits: readonly Edit[]
}

/** The form that is being written, and what is worked out from it. */
export function useDraftForm() {
  const form = shallowRef<Form | null>(null)
  /** The last change: whoever follows the draft step by step needs not compare whole forms. */
  const lastChange = shallowRef<DraftChange | null>(null)
  /** Why the last edits could not be made. */
  const refused = ref<string | null>(null)
  const places = computed<Place[]>(before =>
    form.value ? keepSame(listPlaces(form.value), before ?? []) : [],
  )
  /** The places again, the same list as long as none came, went or moved, and no rule changed: what is worked out from it is not worked out for each key of a label. */
  const threaded = computed<readonly Place[]>(before => {
    const now = places.value
    const isAlike = before?.length === now.length && now.every((p, i) => isAlikeAt(before, p, i))
    return isAlike ? before : now
  })
  const words = computed(() => (form.value ? wordingOf(form.value, places.value) : null))
  /** What names mean in the draft, worked out once for each state. */
  const names = computed(() => (form.value ? new FormNames(form.value, places.value) : null))

  /** Makes edits; null, with the reason in `refused`, when they can't be made. */
  function apply(edits: Edit[], whyNot: (reason: string) => string = reason => reason): Edit[] | null {
    const before = form.value
    if (!before) return null
    try {
      const done = applyEdits(before, edits)
      form.value = done.form
      lastChange.value = { before, after: done.form, edits }
      refused.value = null
      return done.inverses
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      refused.value = whyNot(error.message)
      return null
    }
  }
  return { form, lastChange, refused, places, threaded, words, names, apply }
}

/** A place that is as it was stays the same object, so that only rows that changed are drawn anew. */
function keepSame(places: Place[], before: readonly Place[]): Place[] {
  const known = new Map(before.map(p => [p.address, p]))
  return places.map(place => {
    const old = known.get(place.address)
    return old && isSamePlace(old, place) ? old : place
  })
}

function isAlikeAt(before: readonly Place[], place: Place, at: number): boolean {
  const old = before[at]
  return old !== undefined && isThreadedAlike(old, place)
}

const isSamePlace = (a: Place, b: Place): boolean =>
  a.node === b.node &&
  a.number === b.number &&
  a.order === b.order &&
  a.section === b.section &&
  a.kind === b.kind &&
  a.groups.length === b.groups.length &&
  a.groups.every((g, i) => g.node === b.groups[i]?.node)

import fc from 'fast-check'
import { duplicateEdits, removeEdits } from '../../core/form/clipboard'
import type { Form } from '../../core/form/definition'
import { applyEdits, EditError, type Edit } from '../../core/form/edits'
import { renameEdits } from '../../core/form/rename'
import { listPlaces, nodeText } from '../../core/form/walk'

/** Something that a designer does at once to a form, by numbers; null where it can’t be done. */
function doneAtOnce(form: Form, kind: number, at: number): Edit[] | null {
  const places = listPlaces(form)
  const place = places[at % places.length]
  if (!place) return null
  const { address } = place
  const acts: (() => Edit[])[] = [
    () => [{ do: 'change', what: address, set: { [nodeText(place.node).key]: `Another ${at}` } }],
    () => removeEdits(form, places, [address]),
    () => duplicateEdits(form, places, [address]).edits,
    () => [insertAfter(form, at)],
    () => (place.kind === 'question' ? renameEdits(form, address, `renamed_${at}`) : []),
    () => [{ do: 'move', what: address, into: `section/${form.sections[0]?.code ?? ''}`, at: 0 }],
  ]
  const edits = acts[kind % acts.length]?.() ?? []
  try {
    return edits.length > 0 && applyEdits(form, edits).form.sections.length > 0 ? edits : null
  } catch (error) {
    if (error instanceof EditError) return null
    throw error
  }
}
function insertAfter(form: Form, at: number): Edit {
  const section = form.sections[at % form.sections.length]
  return {
    do: 'insert',
    into: `section/${section?.code ?? ''}`,
    at: section?.items.length ?? 0,
    node: {
      ...{ kind: 'question', type: 'text', code: `put_in_${at}`, label: `Put in ${at}` },
    },
  }
}

/** What a designer does one after the other, by numbers. */
export const acts = fc.array(fc.tuple(fc.nat(5), fc.nat(60)), { minLength: 1, maxLength: 8 })
/** The same as edits of a form; what can’t be done is left out. */
export function stepsOf(form: Form, numbers: readonly (readonly [number, number])[]): Edit[][] {
  const steps: Edit[][] = []
  for (const [kind, at] of numbers) {
    const step = doneAtOnce(form, kind, at)
    if (!step) continue
    steps.push(step)
    form = applyEdits(form, step).form
  }
  return steps
}

import { listPlaces, type Place } from '../form/walk'
import type { Form } from '../form/definition'
import { planOf } from './plan'
import type { Plan, PlannedQuestion, PlannedSection, Step } from './planned'

/** What of a node nothing is planned from: texts are read where they are shown. */
const TEXTS: ReadonlySet<string> = new Set([
  'label',
  'help',
  'placeholder',
  'text',
  'title',
  'requiredMessage',
  'patternMessage',
  'tone',
])
/** What of a form nothing is planned from. */
const ASIDE: ReadonlySet<string> = new Set(['title', 'sections', 'walks'])
/** More changes at once than this are planned anew. */
const MOST = 20

/**
 * The plan of a form that was changed a little: where only texts changed (a keystroke in a label), all but the changed steps of the plan
 * before is used again; otherwise the form is planned anew.
 * @param places those of the form, if they are known
 */
export function replan(before: Plan, form: Form, places: readonly Place[] = listPlaces(form)): Plan {
  if (before.form === form) return before
  const changed = changedTexts(before, form, places)
  if (changed === null) return planOf(form)
  // A place that is not changed keeps its object, but for the form around it nothing else is planned from it.
  return {
    ...before,
    form,
    places: before.places.map((p, i) => changed.get(i) ?? p),
    ...stepsWith(before, changed),
  }
}

/** By place order: the places of which only texts changed; null when anything else did, or too much. */
function changedTexts(before: Plan, form: Form, places: readonly Place[]): Map<number, Place> | null {
  const old = before.form
  if (!sameBut({ ...old }, { ...form }, ASIDE) || old.sections.length !== form.sections.length) return null
  if (places.length !== before.places.length) return null
  const changed = new Map<number, Place>()
  for (const [i, place] of places.entries()) {
    const was = before.places[i]
    if (!was || was.address !== place.address || was.section !== place.section) return null
    if (was.node === place.node) continue
    if (changed.size >= MOST || !hasOnlyTextsChanged(was, place)) return null
    changed.set(i, place)
  }
  return changed
}

function hasOnlyTextsChanged(was: Place, place: Place): boolean {
  const isInEntry = place.entryOf !== null || (place.kind === 'group' && place.node.repeat !== undefined)
  if (isInEntry) return false
  const aside = 'items' in place.node ? new Set([...TEXTS, 'items']) : TEXTS
  return sameBut({ ...was.node }, { ...place.node }, aside)
}

function stepsWith(
  before: Plan,
  changed: ReadonlyMap<number, Place>,
): Pick<Plan, 'sections' | 'questions' | 'byCode'> {
  const made = new Map<Step, Step>()
  for (const section of before.sections) {
    for (const step of section.all) {
      const place = changed.get(step.place.order)
      if (!place) continue
      if (step.is === 'question' && place.kind === 'question') made.set(step, { ...step, place })
      else if (step.is === 'plain') made.set(step, { ...step, place })
    }
  }
  const now = <S extends Step>(steps: readonly S[]): readonly S[] =>
    steps.some(s => made.has(s)) ? steps.map(s => isMade(made.get(s), s) ?? s) : steps
  const sections = before.sections.map((section): PlannedSection => {
    const place = changed.get(section.place.order)
    return {
      ...section,
      place: place?.kind === 'section' ? place : section.place,
      steps: now(section.steps),
      all: now(section.all),
      questions: now(section.questions),
    }
  })
  const questions = now<PlannedQuestion>(before.questions)
  const byCode =
    questions === before.questions
      ? before.byCode
      : new Map([...before.byCode].map(([code, q]) => [code, isMade(made.get(q), q) ?? q] as const))
  return { sections, questions, byCode }
}

/** A step made from another is of its kind. */
const isMade = <S extends Step>(step: Step | undefined, from: S): S | undefined =>
  step?.is === from.is ? (step as S) : undefined

function sameBut(
  a: Readonly<Record<string, unknown>>,
  b: Readonly<Record<string, unknown>>,
  aside: ReadonlySet<string>,
): boolean {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every(key => aside.has(key) || a[key] === b[key])
}

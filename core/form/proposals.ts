import { z } from 'zod'
import type { Form } from './definition'
import { AddressText, applyEdit, applyEdits, Edit, EditError, siblingsIn } from './edits'
import { LIMITS } from './limits'
import { joinSteps, touchesOf, type Touches } from './touches'
import type { Address } from './walk'

/** Of the siblings that something is put below so many are known, the nearest first. */
const MOST_ABOVE = 10

/**
 * A change of a form that somebody proposes: edits that are taken together or not at all. `above`: for each edit that puts something
 * somewhere the siblings that it is put below, the nearest first; none at the beginning and for all other edits. By them its place is found
 * again when the form has changed, or when other proposals are taken or not.
 */
export const Proposal = z
  .strictObject({
    edits: z.array(Edit).min(1).max(LIMITS.proposedEdits),
    above: z.array(z.array(AddressText).max(MOST_ABOVE)).max(LIMITS.proposedEdits),
  })
  .refine(p => p.above.length === p.edits.length, 'each edit needs to say what it is put below')
export type Proposal = z.infer<typeof Proposal>

/** What was done at once, and is undone at once. */
type Step = readonly Edit[]

/**
 * Steps that lead from a form to another, as proposals that can each be taken without the others: what touches the same thing, or needs
 * what another step made, stays together. Of things put in one place the order is kept for those that are taken.
 * @throws EditError when the steps can't be made of the form, one after the other
 */
export function separateProposals(form: Form, steps: readonly Step[]): Proposal[] {
  const made = steps.map(traced(form))
  const groups = joinSteps(made.map(m => m.touches))
  const parts = groups.map(group =>
    alone(
      form,
      group.flatMap(at => made[at]?.edits ?? []),
    ),
  )
  if (parts.every(p => p !== null)) return parts
  // What can't be told apart is one proposal.
  const whole = alone(
    form,
    made.flatMap(m => m.edits),
  )
  return whole ? [whole] : []
}

/** The edits of a proposal for a form that may have changed since: each thing below the sibling that it was put below, if that is still there. */
export function placeProposal(form: Form, { edits, above }: Proposal): Edit[] {
  const placed: Edit[] = []
  for (const [i, edit] of edits.entries()) {
    const next = placeEdit(form, edit, above[i] ?? [])
    form = applyEdit(form, next).form
    placed.push(next)
  }
  return placed
}

/** The steps without the last ones that took each other back: the fewest from the beginning that give the same form. */
export function withoutUndone<S extends Step>(form: Form, steps: readonly S[]): S[] {
  const states = [form]
  for (const step of steps) states.push(applyEdits(states.at(-1) ?? form, step).form)
  const now = JSON.stringify(states.at(-1))
  const same = states.findIndex(state => JSON.stringify(state) === now)
  return steps.slice(0, same)
}

/** An edit with the siblings that it was put below, the nearest first. */
interface Traced {
  edit: Edit
  above: readonly Address[]
}

/** Goes through steps one after the other: what each edit was put below, and what each step touches. */
function traced(form: Form): (step: Step) => { edits: Traced[]; touches: Touches } {
  return step => {
    const before = form
    const edits = step.map(edit => {
      const above = siblingsAbove(form, edit)
      form = applyEdit(form, edit).form
      return { edit, above }
    })
    return { edits, touches: touchesOf(before, step) }
  }
}

function siblingsAbove(form: Form, edit: Edit): Address[] {
  if (edit.do !== 'insert' && edit.do !== 'move') return []
  const own = edit.do === 'move' ? edit.what : null
  return siblingsIn(form, edit.into)
    .filter(address => address !== own)
    .slice(0, edit.at)
    .toReversed()
}

/** Edits made of a form without those in between; null when they can't be. */
function alone(form: Form, edits: readonly Traced[]): Proposal | null {
  const proposal: Proposal = { edits: [], above: [] }
  try {
    for (const { edit, above } of edits) {
      const next = placeEdit(form, edit, above)
      addEdit(proposal, next, above)
      form = applyEdit(form, next).form
    }
  } catch (error) {
    if (error instanceof EditError) return null
    throw error
  }
  return proposal
}

/** Adds an edit; one that changes what the last one changed becomes one with it. */
function addEdit({ edits, above }: Proposal, edit: Edit, siblings: readonly Address[]) {
  const last = edits.at(-1)
  if (edit.do === 'change' && last?.do === 'change' && last.what === edit.what && !('code' in last.set)) {
    edits.splice(-1, 1, { ...last, ...edit, set: { ...last.set, ...edit.set } })
    return
  }
  edits.push(edit)
  above.push(siblings.slice(0, MOST_ABOVE))
}

/** An edit with its place found in a form: below the nearest of some siblings that is there; where none of them is, where it was. */
function placeEdit(form: Form, edit: Edit, above: readonly string[]): Edit {
  if (edit.do !== 'insert' && edit.do !== 'move') return edit
  const own = edit.do === 'move' ? edit.what : null
  const there: readonly string[] = siblingsIn(form, edit.into).filter(address => address !== own)
  const nearest = above.find(address => there.includes(address))
  if (nearest !== undefined) return { ...edit, at: there.indexOf(nearest) + 1 }
  return { ...edit, at: above.length === 0 ? 0 : Math.min(edit.at, there.length) }
}

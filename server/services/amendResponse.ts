import { eq } from 'drizzle-orm'
import { newProblems, listUncorrectable, withChanges } from '../../core/fill/correcting'
import { answersInPlay, fill, type Filled } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import { sameAnswer, type Answers } from '../../core/form/answers'
import { chosenPeople, mergePeople, peopleLists, withPeople } from '../../core/lists/people'
import type { z } from 'zod'
import type { Correctable, Correction } from '../../shared/api/workbench'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { filesIn } from './files'
import { stateAtOf } from './ownLinks'
import { takePlaces } from './places'
import { askPayment } from './payments'
import { queueDeliveries } from './deliveries/queue'
import { answersBefore, keepEvent } from './responseEvents'
import { presentPeople } from './teamRows'

/** Changes answers of a response for those who work with it: the rules are decided again, what stood there is kept in its history with the reason. */
export async function amendResponse(
  db: Database,
  id: string,
  { answers, reason, base }: Correction,
  who: string,
): Promise<void> {
  await db.transaction(async tx => {
    const [found] = await tx
      .select({ response: responses, release: releases })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(eq(responses.id, id))
      .for('update', { of: responses })
    if (!found) return refuse(404, 'not-found', 'There is no such response.')
    const { response, release } = found
    if (response.binnedAt !== null || response.withdrawnAt !== null)
      return refuse(409, 'not-standing', 'This response no longer stands; it is not corrected.')
    if (stateAtOf(response) !== base)
      return refuse(
        409,
        'corrected-elsewhere',
        'This response was corrected elsewhere meanwhile. Look at it again.',
      )
    const plan = await planFor(tx, release.definition, response.people ?? {})
    refuseFixed(plan, answers)
    const before = fill(plan, response.answers, response.begunOn)
    const filled = fill(plan, withChanges(response.answers, answers), response.begunOn)
    refuseNewProblems(before, filled)
    const kept = keptAnswers(filled, response.answers, answers)
    if (sameAnswer(kept, response.answers)) return
    await takePlaces(tx, release, response.answers, kept)
    const chosen = chosenPeople(plan.form, kept)
    const isNone = Object.keys(chosen).length === 0 && response.people === null
    const people = isNone ? null : mergePeople(response.people ?? {}, chosen)
    await tx
      .update(responses)
      .set({ answers: kept, people, correctedAt: new Date() })
      .where(eq(responses.id, id))
    const details = { before: answersBefore(response.answers, kept), remark: reason }
    await keepEvent(tx, { responseId: id, kind: 'corrected', turn: '', who, details })
    const corrected = { ...response, answers: kept, people }
    if (response.turn === null) await askPayment(tx, { response: corrected, release })
    await queueDeliveries(tx, { response: corrected, release }, [{ event: 'corrected' }])
  })
}

/** A response as it is corrected: with those in its teams’ lists who are there today, and whom it has chosen. */
export async function loadCorrectable(db: Database, id: string): Promise<z.output<typeof Correctable>> {
  const [found] = await db
    .select({ response: responses, form: releases.definition })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(responses.id, id))
  if (!found) return refuse(404, 'not-found', 'There is no such response.')
  const { response, form } = found
  const { form: whole } = await planFor(db, form, response.people ?? {})
  return { form: whole, answers: response.answers, begunOn: response.begunOn, base: stateAtOf(response) }
}

async function planFor(db: Database, form: Plan['form'], kept: Parameters<typeof withPeople>[2]) {
  if (peopleLists(form).length === 0) return planOf(form)
  return planOf(withPeople(form, await presentPeople(db, form), kept))
}

function refuseFixed(plan: Plan, answers: Answers): void {
  const wrong = listUncorrectable(plan, answers)
  if (wrong.length === 0) return
  const problems = wrong.map(code => ({ path: code, sentence: `“${code}” can’t be corrected.` }))
  refuse(422, 'not-correctable', 'Some of this can’t be corrected; nothing was stored.', problems)
}

/** Refused is what does not fit and was not so before: what was let through once stays as it is. Files are neither given nor taken away. */
function refuseNewProblems(before: Filled, after: Filled): void {
  const problems = newProblems(before, after)
  if (problems.length > 0)
    refuse(
      422,
      'wrong-answers',
      'With this, the response does not fit its form; nothing was stored.',
      problems.map(({ path, sentence }) => ({ path, sentence })),
    )
  const held = new Set(filesIn(before).map(f => f.id))
  if (filesIn(after).some(f => !held.has(f.id)))
    refuse(422, 'unknown-file', 'A correction gives no files; nothing was stored.')
}

/** What is in play of what was answered, or is now: defaults of later turns stay open. */
function keptAnswers(filled: Filled, stored: Answers, changes: Answers): Answers {
  const own = Object.entries(answersInPlay(filled)).filter(
    ([code]) => Object.hasOwn(stored, code) || Object.hasOwn(changes, code),
  )
  return Object.fromEntries(own)
}

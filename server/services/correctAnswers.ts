import { eq } from 'drizzle-orm'
import type { Plan } from '../../core/fill/planned'
import { fill } from '../../core/fill/fill'
import { sameAnswer, type Answers } from '../../core/form/answers'
import type { Sending } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses } from '../store/schema'
import { acceptAnswers, answersToStore } from './acceptAnswers'
import { claimFiles, filesIn } from './files'
import { refuseOtherRelease, sentAnswer, type Taken } from './handOff'
import { resolveLink, type LinkUse } from './links'
import { isStillCorrectable, stateAtOf } from './ownLinks'
import { takePlaces } from './places'
import { queueDeliveries } from './deliveries/queue'
import { answersBefore, keepEvent } from './responseEvents'
import { askPayment } from './payments'
import { standingOf } from './workspace'

/** Takes a response anew from whoever sent it: the rules are decided again, and what stood there before is kept in its history. */
export async function correctAnswers(db: Database, use: LinkUse, sending: Sending): Promise<Taken> {
  return db.transaction(async tx => {
    const target = await resolveLink(tx, use, { lock: true })
    const { plan, response, release } = target
    if (!response) return refuse(404, 'not-found', 'There is no such response.')
    const { begunOn } = response
    const given = { ...sending.answers, ...hiddenIn(plan, response.answers) }
    refuseOtherRelease(release.number, sending.release)
    const standing = await standingOf(tx, target)
    const filled = acceptAnswers(plan, null, {}, given, { begunOn, standing })
    const kept = answersToStore(filled, null, {}, response.people)
    const own = `/f/${use.token}`
    // The same once more, after a lost connection: it stands so already.
    if (sameAnswer(kept.answers, response.answers))
      return { ...sentAnswer(release, response, null, null), own }
    if (sending.base !== stateAtOf(response))
      refuse(
        409,
        'corrected-elsewhere',
        'This response was corrected elsewhere meanwhile. Reload the page to see it as it is.',
      )
    if (!(await isStillCorrectable(tx, release.formId, response)))
      refuse(403, 'not-correctable', 'This response can’t be corrected any more; it stands as it was sent.')
    await takePlaces(tx, release, response.answers, kept.answers)
    const before = new Set(filesIn(fill(plan, response.answers, begunOn)).map(f => f.id))
    const added = filesIn(filled).filter(f => !before.has(f.id))
    await claimFiles(tx, release.id, sending.key, response.id, added)
    const correctedAt = new Date()
    await tx
      .update(responses)
      .set({ ...kept, correctedAt })
      .where(eq(responses.id, response.id))
    await keepEvent(tx, {
      responseId: response.id,
      kind: 'corrected',
      turn: '',
      who: '',
      details: { before: answersBefore(response.answers, kept.answers) },
    })
    const corrected = { ...response, ...kept }
    await askPayment(tx, { response: corrected, release })
    await queueDeliveries(tx, { response: corrected, release }, [{ event: 'corrected' }])
    return { ...sentAnswer(release, { ...response, sentAt: correctedAt }, null, null), own }
  })
}

/** What came with the link stays as it came. */
const hiddenIn = (plan: Plan, answers: Answers): Answers =>
  Object.fromEntries(
    Object.entries(answers).filter(([code]) => plan.byCode.get(code)?.place.node.type === 'hidden'),
  )

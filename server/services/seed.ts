import type { Form } from '../../core/form/definition'
import type { Turn } from '../../core/form/turns'
import { randomBytes } from 'node:crypto'
import { count } from 'drizzle-orm'
import slipway from '../../demo/forms/slipway_incident.form.json'
import afterLaunch from '../../demo/forms/after_launch.form.json'
import haulOut from '../../demo/forms/haul_out.form.json'
import mooring from '../../demo/forms/mooring.form.json'
import { makeUpResponses } from '../../demo/respond'
import { readForm } from '../../core/form/read'
import type { Answers } from '../../core/form/answers'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import { findActors } from '../../core/parties/actors'
import { filledBy, turnOf, turnsTaken } from '../../core/parties/turns'
import { prove } from '../../core/prove/prove'
import type { Database } from '../store/database'
import { releases, responseCounts, responseEvents, responses, turns, users } from '../store/schema'
import { storeForm } from './drafts'
import { DEMO_OWNER, seedPeople, seedShares } from './seedPeople'
import { seedDocuments } from './seedDocuments'
import { bringDemoTemplate } from './seedTemplates'
import { seedTurns } from './seedTurns'
import { seedCollect } from './seedCollect'
import { seedWays } from './seedWays'
import { seedSuggestions } from './seedSuggestions'
import { hashPassword } from './people/passwords'
import { isoToday } from './calendar'
import { datesOf } from './openTurn'

/** The demo forms: released ones with how many responses, and a draft with planted faults. */
const DEMO_FORMS: readonly { definition: unknown; responses: number }[] = [
  { definition: mooring, responses: 0 },
  { definition: afterLaunch, responses: 180 },
  { definition: slipway, responses: 48 },
  { definition: haulOut, responses: 240 },
]

/** Fills an empty store with the first designer and, for the demo, with forms and responses. A store with users is left alone. */
export async function seed(db: Database, demo: boolean): Promise<void> {
  const [found] = await db.select({ users: count() }).from(users)
  if (!demo || !found || Number(found.users) > 0) return
  const passwordHash = await hashPassword(DEMO_OWNER.password)
  await db.transaction(async tx => {
    const ownerId = await seedPeople(tx, passwordHash)
    for (const entry of DEMO_FORMS) await seedForm(tx, ownerId, entry)
    await seedShares(tx)
    await seedSuggestions(tx)
    await seedTurns(tx)
    await seedWays(tx)
    await seedCollect(tx)
    await seedDocuments(tx)
  })
}

async function seedForm(db: Database, ownerId: string, entry: { definition: unknown; responses: number }) {
  const { form: read, problems } = readForm(entry.definition)
  if (!read)
    throw new Error(`A demo form does not fit: ${problems.map(p => `${p.path} ${p.sentence}`).join('; ')}`)
  const { id } = await storeForm(db, { title: read.title, draft: read, begun: read }, ownerId)
  const form = await bringDemoTemplate(db, id, read, ownerId)
  if (entry.responses === 0) return
  const releaseId = await seedRelease(db, id, ownerId, form)
  await seedResponses(db, { formId: id, releaseId }, form, entry.responses)
}

async function seedRelease(db: Database, formId: string, ownerId: string, form: Form): Promise<string> {
  const { findings } = prove(form, isoToday())
  if (findings.some(f => f.severity !== 'advice'))
    throw new Error(`The demo form “${form.title}” is not clean: ${findings.map(f => f.sentence).join(' ')}`)
  const token = `demo_${form.code}`
  const [release] = await db
    .insert(releases)
    .values({
      formId,
      number: 1,
      revision: 0,
      token,
      definition: form,
      findings,
      accepted: [],
      releasedBy: ownerId,
    })
    .returning({ id: releases.id })
  if (!release) throw new Error(`The demo form “${form.title}” could not be released.`)
  return release.id
}

async function seedResponses(
  db: Database,
  { formId, releaseId }: { formId: string; releaseId: string },
  form: Form,
  count: number,
) {
  const plan = planOf(form)
  // The newest are made first, and have the highest numbers.
  const made = makeUpResponses(form, count, isoToday(), 7).map((r, i) => underWay(plan, r, i))
  const stored = await db
    .insert(responses)
    .values(
      made.map(({ begunOn, answers, turn, sentAt }, i) => ({
        releaseId,
        number: count - i,
        sendingKey: randomBytes(9).toString('base64url'),
        begunOn,
        sentAt,
        answers,
        turn,
      })),
    )
    .returning({ id: responses.id })
  await db.insert(responseCounts).values({ formId, taken: count, standing: count })
  const steps = made.flatMap((response, i) =>
    response.steps.map(step => ({ ...step, responseId: stored[i]?.id ?? '' })),
  )
  if (steps.length === 0) return
  await db.insert(turns).values(steps)
  await db.insert(responseEvents).values(
    steps.flatMap(({ responseId, handedOffAt, turn, to, nextTurn }) => {
      const details = { target: nextTurn }
      const who = to[0] ?? ''
      return handedOffAt ? [{ responseId, at: handedOffAt, kind: 'sent' as const, turn, who, details }] : []
    }),
  )
}

const DAY = 86_400_000
const HOUR = 3_600_000
const MINUTE = 60_000

/** How many turns of a made-up response are done: the newest few are still under way, so that somebody has a turn to take. */
function turnsDone(index: number, all: number): number {
  if (index < 5) return 1
  return index < 9 ? 2 : all
}

/** A made-up response with its turns. */
function underWay(plan: Plan, { begunOn, answers }: { begunOn: string; answers: Answers }, index: number) {
  const through = turnsTaken(fill(plan, answers, begunOn)).flatMap(code => turnOf(plan.form, code) ?? [])
  const done = turnsDone(index, through.length)
  const begun = Date.parse(`${begunOn}T10:30:00Z`)
  // A turn a day; those of today follow one another by minutes.
  const at = (n: number) => new Date(Math.min(begun + n * DAY, Date.now() - HOUR + n * MINUTE))
  const filled = fill(plan, answers, begunOn)
  const steps = through.slice(0, done + 1).map((turn, n) => {
    const isDone = n < done
    return {
      turn: turn.code,
      to: findActors(turn, { filled, teams: new Map(), before: [] }),
      openedAt: at(n),
      handedOffAt: isDone ? at(n + 1) : null,
      nextTurn: isDone ? (through[n + 1]?.code ?? null) : null,
      ...(isDone ? {} : seededDates(turn, isoToday(at(n)))),
    }
  })
  return {
    begunOn,
    turn: through[done]?.code ?? null,
    steps,
    sentAt: at(Math.min(done, through.length)),
    answers: through.length === 0 ? answers : answersOf(plan, through.slice(0, done), answers),
  }
}

/** When a turn is due that was opened some days ago; what would have been posted meanwhile is not posted now. */
function seededDates(turn: Turn, opened: string) {
  const { dueOn, noticeOn } = datesOf(turn, opened)
  return { dueOn, noticeOn: noticeOn !== null && noticeOn > isoToday() ? noticeOn : null }
}

/** The answers that some turns have given. */
function answersOf(plan: Plan, done: readonly Turn[], answers: Answers): Answers {
  const own = new Set(done.flatMap(turn => [...filledBy(plan, turn)]))
  return Object.fromEntries(Object.entries(answers).filter(([code]) => own.has(code)))
}

import { and, eq, inArray } from 'drizzle-orm'
import { fill } from '../../../core/fill/fill'
import { planOf } from '../../../core/fill/plan'
import type { Form } from '../../../core/form/definition'
import { withKeptPeople, type PeopleRows } from '../../../core/lists/people'
import type { Answers } from '../../../core/form/answers'
import {
  documentsMade,
  holds,
  isOn,
  type DoneByItself,
  type Happening,
} from '../../../core/parties/deliveries'
import type { Database } from '../../store/database'
import { deliveryRuns, payments } from '../../store/schema'
import { loadWorkspace } from '../workspace'
import { listProgramHooks } from './programHooks'
import { soon } from './soon'

/** A response as it is now, with the release that it is of. */
export interface Happened {
  response: { id: string; number: number; answers: Answers; begunOn: string; people: PeopleRows | null }
  release: { number: number; formId: string; definition: Form }
}

/** Deliveries that set each other off in a circle end after so many. */
export const DEEPEST = 5

/** Where a response is read by those who may see it. */
export const linkTo = (formId: string, responseId: string) =>
  `/forms/${formId}/collect?response=${responseId}`

/** The address at which something is paid. */
export const pathToPay = (payment: string) => `/pay/${payment}`

/** Where it is paid for a response; null where nothing is to be paid. */
async function linkToPay(db: Database, { payment }: Form, responseId: string): Promise<string | null> {
  if (!payment) return null
  const [row] = await db
    .select({ id: payments.id })
    .from(payments)
    .where(and(eq(payments.responseId, responseId), inArray(payments.state, ['open', 'refused'])))
  return row ? pathToPay(row.id) : null
}

/** All that is done by itself for the responses of a release: its documents first, which the others may rest on, and what programs have asked for. */
export const listDoneByItself = async (
  db: Database,
  { formId, definition }: Happened['release'],
): Promise<DoneByItself[]> => [
  ...documentsMade(definition),
  ...(definition.deliveries ?? []),
  ...(await listProgramHooks(db, formId)),
]

/** A response worked out with all that its texts may quote. */
export async function fillFor(db: Database, { response, release }: Happened) {
  const standing = {
    release: { number: release.number },
    response: {
      number: response.number,
      link: linkTo(release.formId, response.id),
      pay: await linkToPay(db, release.definition, response.id),
    },
    workspace: await loadWorkspace(db),
  }
  const plan = planOf(withKeptPeople(release.definition, response.people))
  return fill(plan, response.answers, response.begunOn, standing)
}

/**
 * Writes down what is to be done by itself because of what has happened to a response, in the transaction in which it happens: neither is
 * there without the other. A condition of what is done later is asked then.
 * @param depth how many deliveries have set each other off before
 */
export async function queueDeliveries(
  db: Database,
  happened: Happened,
  happenings: readonly Happening[],
  depth = 0,
): Promise<void> {
  const all = await listDoneByItself(db, happened.release)
  const meant = all.filter(d => happenings.some(happening => isOn(d, happening)))
  if (meant.length === 0 || depth >= DEEPEST) return
  const filled = await fillFor(db, happened)
  const due = meant.filter(d => d.after !== undefined || holds(filled, d))
  if (due.length === 0) return
  await db.insert(deliveryRuns).values(
    due.map(({ code, title, after = 0 }) => ({
      formId: happened.release.formId,
      responseId: happened.response.id,
      delivery: code,
      title: title || code,
      depth,
      dueAt: new Date(Date.now() + after * HOUR),
    })),
  )
  soon()
}
const HOUR = 3_600_000

/** What has happened besides, where nothing is left to be answered: it is done, unless it counts so only when it is paid. */
export const doneNow = (isUnpaid: boolean): Happening[] => (isUnpaid ? [] : [{ event: 'done' }])

/** What has happened when a turn was handed on. @param isDone nobody’s turn is next */
export const handedOn = (turn: string, isDone: boolean): Happening[] =>
  isDone ? [{ event: 'handedOn', turn }, { event: 'done' }] : [{ event: 'handedOn', turn }]

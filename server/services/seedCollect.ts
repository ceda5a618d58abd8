import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { PaymentState } from '../../core/form/payment'
import { withKeptPeople } from '../../core/lists/people'
import { paymentDue } from '../../core/parties/payment'
import { ResponseFilter } from '../../shared/api/responses'
import type { Database } from '../store/database'
import {
  dashboards,
  deliveryRuns,
  forms,
  pageSteps,
  payments,
  releases,
  responseEvents,
  responses,
  trays,
  users,
  views,
} from '../store/schema'
import { saveRetention } from './keptFor'

const OF = 'haul_out'
const DAY = 86_400_000
const HOUR = 3_600_000
/** The trays of the demo, and from how many days ago on responses stand in each. */
const TRAYS = [
  { name: 'New', from: 0 },
  { name: 'Checked', from: 12 },
  { name: 'Ordered', from: 35 },
  { name: 'Done', from: 90 },
]

/** What a team has made of the demo’s responses: trays, views, notes, and deliveries, one of which fails. */
export async function seedCollect(db: Database): Promise<void> {
  const [form] = await db
    .select({ id: forms.id })
    .from(forms)
    .where(sql`${forms.draft} ->> 'code' = ${OF}`)
  const [ines] = await db.select().from(users).where(eq(users.email, 'ines@wherry.example'))
  if (!form || !ines) throw new Error('The demo’s form of haul-outs is missing.')
  const all = await db
    .select({ id: responses.id, sentAt: responses.sentAt, turn: responses.turn })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, form.id), isNull(responses.withdrawnAt)))
    .orderBy(asc(responses.number))
  await seedTrays(db, form.id, all)
  await seedViews(db, form.id, ines.id)
  await saveRetention(db, form.id, { months: 60, act: 'strip' })
  await seedDashboard(db, ines.id, form.id)
  await seedSteps(db, form.id)
  const newest = all.at(-1)
  if (newest)
    await db.insert(responseEvents).values({
      responseId: newest.id,
      kind: 'noted',
      turn: '',
      who: ines.name,
      details: { remark: 'Rang the owner: any day that week suits them.', to: [] },
    })
  const ended = all.filter(r => r.turn === null)
  await seedPayments(db, ended)
  const done = ended.slice(-8)
  await db.insert(deliveryRuns).values(done.map((response, i) => seededRun(form.id, response, i)))
}

/** What was to be paid for those that are done: the newest is refused, some wait, the others are paid, but for one that was paid back. */
async function seedPayments(db: Database, ended: readonly Seeded[]): Promise<void> {
  const found = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(
      inArray(
        responses.id,
        ended.map(r => r.id),
      ),
    )
    .orderBy(desc(responses.number))
  const values = found.flatMap(({ response, release }, i) => {
    const filled = fill(
      planOf(withKeptPeople(release.definition, response.people)),
      response.answers,
      response.begunOn,
    )
    const due = paymentDue(filled)
    const state = FIRST_PAYMENTS[i] ?? 'paid'
    return due ? [{ ...due, responseId: response.id, state, changedAt: response.sentAt }] : []
  })
  if (values.length > 0) await db.insert(payments).values(values)
}
const FIRST_PAYMENTS: readonly PaymentState[] = ['refused', 'open', 'open', 'open', 'paid', 'paid back']

interface Seeded {
  id: string
  sentAt: Date
  turn: string | null
}

async function seedTrays(db: Database, formId: string, all: readonly Seeded[]) {
  const made = await db
    .insert(trays)
    .values(
      TRAYS.map(({ name }, position) => ({
        ...{ formId, position, name },
        tells: name === 'Ordered' ? ['lift@wherry.example'] : [],
      })),
    )
    .returning({ id: trays.id })
  for (const [i, { from }] of TRAYS.entries()) {
    const to = TRAYS[i + 1]?.from ?? Infinity
    const ids = all
      .filter(({ sentAt, turn }) => {
        const age = (Date.now() - sentAt.getTime()) / DAY
        // What is in progress is not ordered yet.
        return age >= from && age < to && (turn === null || i < 2)
      })
      .map(r => r.id)
    if (ids.length > 0)
      await db.update(responses).set({ trayId: made[i]?.id }).where(inArray(responses.id, ids))
  }
}

async function seedViews(db: Database, formId: string, userId: string) {
  const columns = ['boat_name', 'owner_name', 'purpose', 'lift_on', 'tons', 'estimate_total']
  const view = (name: string, isShared: boolean, filter: object) => ({
    ...{ formId, userId, name, isShared },
    settings: { filter: ResponseFilter.parse(filter), sort: '-sentAt', columns, pinned: 1 },
  })
  await db
    .insert(views)
    .values([
      view('Repairs in work', true, { where: 'purpose = "repair"', state: 'progress' }),
      view('Heavy boats', false, { where: 'tons > 12' }),
    ])
}

/** Of all who begin so many reach each section; many stop where they are asked what they need. */
const REACH = [1, 0.96, 0.93, 0.81, 0.78, 0.77]
/** How the times of a section are spread, from under 15 seconds to longer than ten minutes. */
const SPREAD = [0.12, 0.38, 0.33, 0.13, 0.04] as const

/** How far people came with the first turn of the demo’s form. */
async function seedSteps(db: Database, formId: string) {
  const [release] = await db.select().from(releases).where(eq(releases.formId, formId))
  if (!release) return
  const began = 312
  const [within15, within60, within180, within600, longer] = SPREAD
  const sections = release.definition.sections.slice(0, REACH.length)
  await db.insert(pageSteps).values(
    sections.map(({ code }, i) => {
      const left = Math.round(began * (REACH[i + 1] ?? 0.769))
      const share = (part: number) => Math.round(left * part)
      return {
        ...{ releaseId: release.id, section: code, left },
        reached: Math.round(began * (REACH[i] ?? 0)),
        ...{ within15: share(within15), within60: share(within60), within180: share(within180) },
        ...{ within600: share(within600), longer: share(longer) },
      }
    }),
  )
}

/** A dashboard over two forms, which stands in the demo from the beginning. */
async function seedDashboard(db: Database, userId: string, haulOut: string) {
  const [after] = await db
    .select({ id: forms.id })
    .from(forms)
    .where(sql`${forms.draft} ->> 'code' = 'after_launch'`)
  const tile = (form: string, figure: string, title: string, filter: object = {}) => ({
    ...{ form, figure, title, by: '', filter: ResponseFilter.parse(filter) },
  })
  const tiles = [
    tile(haulOut, '', 'Requests'),
    tile(haulOut, '', 'Repairs in work', { where: 'purpose = "repair"', state: 'progress' }),
    tile(haulOut, 'purpose', ''),
    tile(haulOut, 'lift_on', 'Wanted days'),
    ...(after ? [tile(after.id, 'overall', 'How it went'), tile(after.id, 'parts', '')] : []),
  ]
  await db.insert(dashboards).values({ userId, name: 'The season', isShared: true, tiles })
}

/** An order to the works desk: most were taken, one waits for another try, and one was given up. */
function seededRun(formId: string, { id, sentAt }: Seeded, index: number): typeof deliveryRuns.$inferInsert {
  const run = {
    formId,
    responseId: id,
    delivery: 'works_order',
    title: 'Order to the works desk',
    madeAt: sentAt,
  }
  if (index === 5) return { ...run, state: 'given up', tries: 8, said: 'Refused (503).', dueAt: sentAt }
  if (index === 7)
    return { ...run, tries: 3, said: 'There was no answer.', dueAt: new Date(Date.now() + HOUR) }
  return { ...run, state: 'done', tries: 1, said: 'Taken (200).', dueAt: sentAt, doneAt: sentAt }
}

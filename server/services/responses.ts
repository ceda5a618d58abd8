import { asc, eq } from 'drizzle-orm'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Form } from '../../core/form/definition'
import { withKeptPeople } from '../../core/lists/people'
import { readResponse } from '../../core/parties/readResponse'
import { turnNameOf } from '../../core/parties/turns'
import type { ResponseDetails } from '../../shared/api/responses'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses, turns, users, ways } from '../store/schema'
import { linkTo } from './deliveries/queue'
import { listDocuments } from './documents/listDocuments'
import { findPayment } from './payments'
import { loadHandedOff } from './handedOff'
import { listHistory } from './responseHistory'
import { loadWorkspace } from './workspace'

/** Who reads a response: their address, and whether they may act in its form. */
interface Reader {
  email: string
  mayAct: boolean
}

/** One response as it is read, with its turns and its history; links that open turns only for those who may act. */
export async function loadResponse(
  db: Database,
  id: string,
  reader: Reader,
): Promise<ResponseDetails & { formId: string }> {
  const [row] = await db
    .select({
      number: responses.number,
      sentAt: responses.sentAt,
      withdrawnAt: responses.withdrawnAt,
      correctedAt: responses.correctedAt,
      binnedAt: responses.binnedAt,
      tray: responses.trayId,
      way: ways.name,
      wayKind: ways.kind,
      by: users.name,
      begunOn: responses.begunOn,
      answers: responses.answers,
      people: responses.people,
      release: releases.number,
      formId: releases.formId,
      definition: releases.definition,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .leftJoin(ways, eq(ways.id, responses.wayId))
    .leftJoin(users, eq(users.id, responses.userId))
    .where(eq(responses.id, id))
  if (!row) return refuse(404, 'not-found', 'There is no such response.')
  const plan = planOf(withKeptPeople(row.definition, row.people))
  const standing = {
    release: { number: row.release },
    response: { number: row.number, link: linkTo(row.formId, id) },
    workspace: await loadWorkspace(db),
  }
  const filled = fill(plan, row.answers, row.begunOn, standing)
  const handedOff = (await loadHandedOff(db, [id])).get(id) ?? []
  return {
    id,
    form: row.definition.title,
    formId: row.formId,
    number: row.number,
    sentAt: row.sentAt.toISOString(),
    withdrawnAt: row.withdrawnAt?.toISOString() ?? null,
    correctedAt: row.correctedAt?.toISOString() ?? null,
    binnedAt: row.binnedAt?.toISOString() ?? null,
    tray: row.tray,
    ...senderNames(row),
    begunOn: row.begunOn,
    release: row.release,
    lines: readResponse(filled, handedOff),
    turns: await listTurns(db, id, row.definition, reader),
    documents: await listDocuments(db, filled, id),
    payment: await findPayment(db, id),
    history: await listHistory(db, { id, plan, standing, ...row }, reader.mayAct),
  }
}

/** By which way a response came, and of whom it is: who was signed in, or whose personal link it was. */
function senderNames(row: { way: string | null; wayKind: 'link' | 'person' | null; by: string | null }) {
  const isPersonal = row.wayKind === 'person'
  return { way: isPersonal ? '' : (row.way ?? ''), by: (isPersonal ? row.way : row.by) ?? '' }
}

/** The turns of a response in the order in which they were opened. */
async function listTurns(
  db: Database,
  responseId: string,
  form: Form,
  { email, mayAct }: Reader,
): Promise<ResponseDetails['turns']> {
  const rows = await db
    .select()
    .from(turns)
    .where(eq(turns.responseId, responseId))
    // Handed off and opened in one moment: the one that is still open is the later one.
    .orderBy(asc(turns.openedAt), asc(turns.handedOffAt))
  return rows.map(({ id, turn: code, to, openedAt, handedOffAt, givenBackAt, dueOn, remark }) => ({
    id,
    name: turnNameOf(form, code),
    mayOpen: to.length > 0 ? to.includes(email) : mayAct,
    to,
    openedAt: openedAt.toISOString(),
    handedOffAt: handedOffAt?.toISOString() ?? null,
    givenBackAt: givenBackAt?.toISOString() ?? null,
    dueOn,
    remark,
  }))
}

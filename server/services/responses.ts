import { asc, eq } from 'drizzle-orm'
import { describeResponse } from '../../core/fill/describeResponse'
import { planOf } from '../../core/fill/plan'
import type { Form } from '../../core/form/definition'
import { withKeptPeople } from '../../core/lists/people'
import { turnName, turnOf } from '../../core/parties/turns'
import type { ResponseDetails } from '../../shared/api/responses'
import { refuse } from '../http/refuse'
import { listMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { givenBack, releases, responses, turns } from '../store/schema'

/** One response as it is read, with its turns and what was posted about it; the links of its turns only for those who may act (`mayAct`). */
export async function loadResponse(
  db: Database,
  id: string,
  mayAct: boolean,
): Promise<ResponseDetails & { formId: string }> {
  const [row] = await db
    .select({
      sentAt: responses.sentAt,
      begunOn: responses.begunOn,
      answers: responses.answers,
      people: responses.people,
      release: releases.number,
      formId: releases.formId,
      definition: releases.definition,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(responses.id, id))
  if (!row) return refuse(404, 'not-found', 'There is no such response.')
  const messages = await listMail(db, id)
  return {
    id,
    formId: row.formId,
    sentAt: row.sentAt.toISOString(),
    begunOn: row.begunOn,
    release: row.release,
    lines: describeResponse(planOf(withKeptPeople(row.definition, row.people)), row.answers, row.begunOn),
    turns: await listTurns(db, id, row.definition, mayAct),
    givenBack: await listGivenBack(db, id, row.definition),
    messages: messages.map(m => ({
      ...m,
      text: mayAct ? m.text : withoutLinks(m.text),
      at: m.at.toISOString(),
    })),
  }
}

/** How often and why a response was given back, the oldest first. */
async function listGivenBack(
  db: Database,
  responseId: string,
  form: Form,
): Promise<ResponseDetails['givenBack']> {
  const nameOf = (code: string) => {
    const turn = turnOf(form, code)
    return turn ? turnName(form, turn) : code
  }
  const rows = await db
    .select()
    .from(givenBack)
    .where(eq(givenBack.responseId, responseId))
    .orderBy(asc(givenBack.at))
  return rows.map(({ from, to, remark, at }) => ({
    from: nameOf(from),
    to: nameOf(to),
    remark,
    at: at.toISOString(),
  }))
}

/** What was posted, without the links that were in it. */
const withoutLinks = (text: string) => text.replace(/\/f\/[\w-]+/g, '/f/…')

/** The turns of a response in the order in which they were opened. */
async function listTurns(
  db: Database,
  responseId: string,
  form: Form,
  mayAct: boolean,
): Promise<ResponseDetails['turns']> {
  const rows = await db
    .select()
    .from(turns)
    .where(eq(turns.responseId, responseId))
    // Handed off and opened in one moment: the one that is still open is the later one.
    .orderBy(asc(turns.openedAt), asc(turns.handedOffAt))
  return rows.map(({ turn: code, token, to, openedAt, handedOffAt, remark }) => {
    const turn = turnOf(form, code)
    return {
      name: turn ? turnName(form, turn) : code,
      token: mayAct ? token : null,
      to,
      openedAt: openedAt.toISOString(),
      handedOffAt: handedOffAt?.toISOString() ?? null,
      remark,
    }
  })
}

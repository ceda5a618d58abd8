import { count, desc, eq, sql } from 'drizzle-orm'
import { describeResponse, type ResponseLine } from '../../core/fill/describeResponse'
import { planOf } from '../../core/fill/plan'
import type { Form } from '../../core/form/definition'
import { withoutQuotes } from '../../core/form/quotes'
import { openNamesOf } from '../../core/parties/turns'
import type { ResponseQuery, ResponseTable } from '../../shared/api/responses'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { loadFormRow } from './drafts'
import { countResponses } from './loadForm'
import { leavesAll, orderBy, selectionOf } from './selectResponses'
import { loadVersions, plansOf, type Definition } from './versions'

/** A page of the responses to all releases of a form: counted, searched, sorted and paged by the database, its cells made here. */
export async function listResponses(
  db: Database,
  formId: string,
  { page, size, sort, ...filter }: ResponseQuery,
): Promise<ResponseTable> {
  await loadFormRow(db, formId)
  const definitions = await loadVersions(db, formId)
  const where = selectionOf(formId, filter, definitions)
  const [found] = await db
    .select({ number: count() })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(where)
  const rows = await db
    .select({
      id: responses.id,
      sentAt: responses.sentAt,
      begunOn: responses.begunOn,
      answers: responses.answers,
      people: responses.people,
      turn: responses.turn,
      number: responses.number,
      isWithdrawn: sql<boolean>`${responses.withdrawnAt} is not null`,
      release: releases.number,
      tray: responses.trayId,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(where)
    .orderBy(orderBy(sort, definitions), desc(responses.id))
    .limit(size)
    .offset((page - 1) * size)
  const planFor = plansOf(definitions)
  const number = Number(found?.number ?? 0)
  return {
    count: number,
    all: leavesAll(filter) ? number : await countResponses(db, formId),
    hasTurns: definitions.some(d => (d.form.turns ?? []).length > 0),
    columns: columnsIn(definitions[0]?.form),
    rows: rows.map(({ answers, begunOn, turn, people, ...row }) => {
      const plan = planFor(row.release, people)
      return {
        ...row,
        sentAt: row.sentAt.toISOString(),
        turn: turn === null ? null : openNamesOf(plan?.form ?? null, turn),
        cells: plan
          ? cellsOf(
              describeResponse(plan, answers, begunOn),
              definitions.find(d => d.number === row.release),
            )
          : {},
      }
    }),
  }
}

/** Quotes in a label are of one response: the head of a column has none. */
const columnsIn = (form: Form | undefined): ResponseTable['columns'] =>
  form
    ? planOf(form).questions.map(({ place }) => ({
        code: place.code,
        label: withoutQuotes(place.node.label),
        section: withoutQuotes(form.sections[place.section]?.title ?? ''),
        type: place.node.type,
      }))
    : []

/** How a cell says that its question was not asked. */
const UNASKED = '·'

/** One cell for each question; what was asked once per entry stands in one cell, entry by entry. */
function cellsOf(lines: readonly ResponseLine[], definition: Definition | undefined): Record<string, string> {
  const cells: Record<string, string> = {}
  for (const line of lines) {
    const text = line.state === 'unasked' ? UNASKED : line.text
    const code = definition?.newest(line.code) ?? line.code
    const before = cells[code]
    cells[code] = before ? [before, text].filter(Boolean).join(' | ') : text
  }
  return cells
}

import type { AnyPgColumn } from 'drizzle-orm/pg-core'
import { and, asc, count, desc, eq, or, sql, type SQL } from 'drizzle-orm'
import { describeResponse, type ResponseLine } from '../../core/fill/describeResponse'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import type { Form } from '../../core/form/definition'
import { isChoice } from '../../core/form/questions'
import { withoutQuotes } from '../../core/form/quotes'
import { optionsOf } from '../../core/form/rows'
import { withKeptPeople, type PeopleRows } from '../../core/lists/people'
import { openNamesOf } from '../../core/parties/turns'
import type { ResponseQuery, ResponseTable } from '../../shared/api/responses'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { loadFormRow } from './drafts'
import { countResponses } from './loadForm'
import { codeAt, loadRenames } from './renames'

/** Choices of one question whose labels fit a search, at most: beyond, the search is too wide to be told by labels. */
const MOST_LABELS = 50

/** A page of the responses to all releases of a form: counted, searched, sorted and paged by the database, its cells made here. */
export async function listResponses(
  db: Database,
  formId: string,
  { page, size, search, sort }: ResponseQuery,
): Promise<ResponseTable> {
  await loadFormRow(db, formId)
  const definitions = await loadDefinitions(db, formId)
  const ofForm = eq(releases.formId, formId)
  const where = search.trim() === '' ? ofForm : and(ofForm, matches(search.trim(), definitions))
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
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(where)
    .orderBy(orderBy(sort, definitions), desc(responses.id))
    .limit(size)
    .offset((page - 1) * size)
  const planFor = plansOf(definitions)
  return {
    count: Number(found?.number ?? 0),
    all: await countResponses(db, formId),
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

/** The plan of a release for responses that chose the same people: made when it is needed first. */
function plansOf(definitions: readonly Definition[]) {
  const plans = new Map<string, Plan>()
  return (release: number, people: PeopleRows | null): Plan | undefined => {
    const form = definitions.find(d => d.number === release)?.form
    const key = `${release} ${JSON.stringify(people)}`
    const plan = plans.get(key) ?? (form && planOf(withKeptPeople(form, people)))
    if (plan) plans.set(key, plan)
    return plan
  }
}

interface Definition {
  number: number
  form: Form
  /** What a code is called in the newest release: columns follow their question. */
  newest: (code: string) => string
}

/** The definitions of a form's releases, the newest first. */
async function loadDefinitions(db: Database, formId: string): Promise<Definition[]> {
  const rows = await db
    .select({ number: releases.number, form: releases.definition, revision: releases.revision })
    .from(releases)
    .where(eq(releases.formId, formId))
    .orderBy(desc(releases.number))
  const renames = rows.length > 1 ? await loadRenames(db, formId) : []
  const until = rows[0]?.revision ?? 0
  return rows.map(({ number, form, revision }) => ({
    number,
    form,
    newest: code => (revision === null ? code : codeAt(code, revision, until, renames)),
  }))
}

/** Quotes in a label are of one response: the head of a column has none. */
const columnsIn = (form: Form | undefined): ResponseTable['columns'] =>
  form
    ? planOf(form).questions.map(({ place }) => ({
        code: place.code,
        label: withoutQuotes(place.node.label),
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

/** What of a response can be sorted by besides its answers. */
const SORTED = new Map<string, AnyPgColumn>([
  ['number', responses.number],
  ['number', responses.number],
  ['sentAt', responses.sentAt],
  ['release', releases.number],
  ['turn', responses.turn],
])

/** `-sentAt`: the newest first; `cells.berth`: by the answers to a question, whatever it was called in older releases. */
function orderBy(sort: string, definitions: readonly Definition[]): SQL {
  const isDown = sort.startsWith('-')
  const key = sort.replace(/^-/, '')
  const code = key.replace('cells.', '')
  const older = definitions.flatMap(({ number, form, newest }) => {
    const own = planOf(form).questions.find(q => newest(q.place.code) === code)?.place.code
    return own !== undefined && own !== code ? [sql`when ${number}::integer then ${own}::text`] : []
  })
  const called =
    older.length === 0
      ? sql`${code}::text`
      : sql`(case ${releases.number} ${sql.join(older, sql` `)} else ${code}::text end)`
  const answer = sql`${responses.answers} -> ${called}`
  const column = SORTED.get(key) ?? answer
  return isDown ? sql`${desc(column)} nulls last` : sql`${asc(column)} nulls last`
}

/** The texts and numbers in an answer, however deep they stand; the codes of questions are none. */
const VALUES = '$.** ? (@.type() == "string" || @.type() == "number")'

/** Answers that hold a text, or a choice whose label does. */
function matches(text: string, definitions: readonly Definition[]): SQL | undefined {
  const typed = `%${text.replaceAll(/[\\%_]/g, '\\$&')}%`
  const labelled = definitions.flatMap(d => choicesLabelled(d.form, text))
  return or(
    sql`exists (
      select 1 from jsonb_path_query(${responses.answers}, ${VALUES}::jsonpath) as value
      where value #>> '{}' ilike ${typed}
    )`,
    sql`exists (
      select 1 from jsonb_path_query(${responses.people}, '$.*[*].label'::jsonpath) as name
      where name #>> '{}' ilike ${typed}
    )`,
    ...labelled.map(answer => sql`${responses.answers} @> ${JSON.stringify(answer)}::jsonb`),
  )
}

/** The answers that choose something whose label holds a text, as JSON that the stored answers contain. */
function choicesLabelled(form: Form, text: string): Record<string, unknown>[] {
  const wanted = text.toLowerCase()
  return planOf(form).questions.flatMap(({ place: { node, code, entryOf } }) => {
    if (!isChoice(node) || entryOf !== null) return []
    const found = (optionsOf(form, node) ?? []).filter(row => row.label.toLowerCase().includes(wanted))
    if (found.length > MOST_LABELS) return []
    return found.map(row => ({ [code]: node.type === 'choices' ? [row.code] : row.code }))
  })
}

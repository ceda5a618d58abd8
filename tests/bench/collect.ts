import { randomUUID } from 'node:crypto'
import type { Readable } from 'node:stream'
import { text } from 'node:stream/consumers'
import { setTimeout } from 'node:timers/promises'
import { eq } from 'drizzle-orm'
import Papa from 'papaparse'
import { bringPatternEngine } from '../../core/expressions/patternEngine'
import { seededRandom } from '../../core/fill/draw'
import { answersInPlay, fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { drawPlausibleAnswers } from '../../core/fill/plausible'
import { restoreFormula } from '../../core/formats/formulas'
import type { Form } from '../../core/form/definition'
import { exportResponses } from '../../server/services/exportResponses'
import { makeAccessKey } from '../../server/services/accessKeys'
import { weighImport } from '../../server/services/importResponses'
import { readLive } from '../../server/services/liveTable'
import { loadFactSet } from '../../server/services/facts/storedFacts'
import { listResponses } from '../../server/services/responseTable'
import type { Database } from '../../server/store/database'
import { releases, responses, users } from '../../server/store/schema'
import { crossResponses, summariseResponses } from '../../server/services/summaries'
import { CrossQuery, SummaryQuery } from '../../shared/api/summaries'
import { MOST_ROWS_AT_ONCE } from '../../shared/api/imports'
import { ExportQuery, ResponseFilter, ResponseQuery } from '../../shared/api/responses'
import { withBareStore } from './server'

type Say = (what: string, value: string, goal: string) => void
const COUNT = 100_000
const AT_ONCE = 1_000
/** So many responses are drawn; the rest is like one of them. */
const DRAWN = 2_000
const WORDS = ['Saltmarsh', 'Tern', 'Osier', 'Reach', 'Gannet']
const TODAY = '2026-11-24'

/** The table of many responses to the demo’s form of 48 questions: a page, filters, search, and files of all of them, on the embedded database. */
export async function collecting(say: Say): Promise<void> {
  await withBareStore(undefined, async db => {
    const [release] = await db.select().from(releases).where(eq(releases.token, 'demo_haul_out'))
    if (!release) throw new Error('The demo has no such form.')
    await fillStore(db, release.id, release.definition)
    const list = (query: Partial<ResponseQuery>) =>
      listResponses(db, release.formId, { ...ResponseQuery.parse({}), ...query })
    const asked: [string, Partial<ResponseQuery>, string][] = [
      ['the first page', {}, '< 200 ms'],
      ['page 2,000', { page: 2_000 }, ''],
      ['sorted by an answer', { sort: 'cells.loa' }, ''],
      ['filtered by two answers', { where: 'hull = "wood" and loa > 12' }, '< 500 ms'],
      ['filtered by a day, sorted by an answer', { since: '2026-06-01', sort: '-cells.draught' }, ''],
      ['searched for a word', { search: 'osier' }, '< 500 ms'],
    ]
    for (const [what, query, goal] of asked) {
      await list(query)
      const begun = performance.now()
      const { count } = await list(query)
      say(`${COUNT} responses: ${what} (${count})`, `${(performance.now() - begun).toFixed(0)} ms`, goal)
    }
    await summarise(db, release.formId, say)
    for (const format of ['csv', 'jsonl', 'xlsx'] as const) await takeOut(db, release.formId, format, say)
    await liveAddress(db, release.formId, say)
    await bringIn(db, release.formId, say)
  })
}

/** Figures of all questions: read for the first time, then again, filtered, compared and crossed. */
async function summarise(db: Database, formId: string, say: Say) {
  const ask = (more: object = {}) => summariseResponses(db, formId, SummaryQuery.parse(more))
  const begun = performance.now()
  while (!(await ask()).isReady);
  const seconds = ((performance.now() - begun) / 1000).toFixed(1)
  const memory = (process.memoryUsage().rss / 1e6).toFixed(0)
  say(`${COUNT} responses read for figures, once`, `${seconds} s, ${memory} MB`, '')
  await ask()
  // They are packed beside this thread, which has to be left alone meanwhile.
  while ((await loadFactSet(db, formId))?.setId == null) await setTimeout(20)
  // The same store as a process sees it that begins now.
  const next: Database = Object.create(db)
  const start = performance.now()
  while (!(await summariseResponses(next, formId, SummaryQuery.parse({}))).isReady);
  say(
    `${COUNT} responses: the first figures after a start`,
    `${(performance.now() - start).toFixed(0)} ms`,
    '',
  )
  const cross = CrossQuery.parse({ rows: 'hull', columns: 'purpose', figure: 'mean', of: 'loa' })
  const asked: [string, () => Promise<unknown>][] = [
    ['figures of all 48 questions', () => ask()],
    ['the same, filtered by two answers', () => ask({ where: 'hull = "wood" and loa > 12' })],
    ['the same, compared by a choice', () => ask({ by: 'hull' })],
    ['two answers crossed with the mean of a third', () => crossResponses(db, formId, cross)],
  ]
  for (const [what, run] of asked) {
    const from = performance.now()
    await run()
    say(`${COUNT} responses: ${what}`, `${(performance.now() - from).toFixed(0)} ms`, '< 1 s')
  }
}

async function fillStore(db: Database, releaseId: string, form: Form) {
  bringPatternEngine()
  const plan = planOf(form)
  const next = seededRandom(7)
  const drawn = Array.from({ length: DRAWN }, () => {
    const answers = drawPlausibleAnswers(plan, {}, TODAY, next, () => WORDS) ?? {}
    return answersInPlay(fill(plan, answers, TODAY))
  })
  for (let from = 0; from < COUNT; from += AT_ONCE)
    await db.insert(responses).values(
      Array.from({ length: AT_ONCE }, (_, i) => ({
        releaseId,
        number: 1_000 + from + i,
        sendingKey: randomUUID(),
        sentAt: new Date(Date.UTC(2026, 0, 1) + (from + i) * 280_000),
        begunOn: TODAY,
        answers: drawn[(from + i) % DRAWN] ?? {},
      })),
    )
}

async function takeOut(db: Database, formId: string, format: ExportQuery['format'], say: Say) {
  const begun = performance.now()
  let [bytes, most] = [0, 0]
  const { content } = await exportResponses(db, formId, ExportQuery.parse({ format }))
  for await (const piece of content as Readable) {
    bytes += Buffer.byteLength(piece)
    most = Math.max(most, process.memoryUsage().rss)
  }
  const seconds = (performance.now() - begun) / 1000
  const size = `${(bytes / 1e6).toFixed(0)} MB`
  say(
    `the same taken out as ${format}`,
    `${seconds.toFixed(1)} s, ${size}, ${(most / 1e6).toFixed(0)} MB at most`,
    '',
  )
}

/** A live address of what a filter leaves, as a spreadsheet fetches it. */
async function liveAddress(db: Database, formId: string, say: Say) {
  const [owner] = await db.select({ id: users.id }).from(users).limit(1)
  const filter = ResponseFilter.parse({ where: 'hull = "steel" and loa > 12' })
  const live = { kind: 'live', name: 'Steel', filter } as const
  const { secret } = await makeAccessKey(db, formId, owner?.id ?? '', live)
  const begun = performance.now()
  let bytes = 0
  for await (const piece of (await readLive(db, `${secret}.csv`)).content) bytes += Buffer.byteLength(piece)
  const seconds = ((performance.now() - begun) / 1000).toFixed(1)
  say('a live address, filtered by two answers, as CSV', `${seconds} s, ${(bytes / 1e6).toFixed(0)} MB`, '')
}

/** Rows that were taken out, looked at as they come in again: a piece at a time, as the page sends them. */
async function bringIn(db: Database, formId: string, say: Say) {
  const { content } = await exportResponses(
    db,
    formId,
    ExportQuery.parse({ format: 'csv', where: 'hull = "steel" and loa > 16' }),
  )
  const [heads = [], ...lines] = Papa.parse<string[]>((await text(content)).replace(/^\uFEFF/, ''), {
    skipEmptyLines: true,
  }).data
  if (lines.length < MOST_ROWS_AT_ONCE) throw new Error('There is too little to bring in.')
  const rows = lines.slice(0, MOST_ROWS_AT_ONCE).map(line => ({
    number: Number(line[0]),
    key: randomUUID(),
    given: { cells: line.map(restoreFormula) },
  }))
  const begun = performance.now()
  const weighed = await weighImport(db, formId, { heads, sheets: [], rows })
  const seconds = (performance.now() - begun) / 1000
  const same = weighed.rows.filter(row => row.is === 'same').length
  say(
    `rows looked at as they come in again (${same} of ${rows.length} as they are)`,
    `${Math.round(rows.length / seconds)} rows/s`,
    '',
  )
}

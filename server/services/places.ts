import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import { countChosen, limitedOptions, type LimitedOption } from '../../core/form/places'
import { optionsOf } from '../../core/form/rows'
import { listPlaces, placeName } from '../../core/form/walk'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, releases, responseCounts, responses } from '../store/schema'
import { uncountSender } from './admission'

/** The options of a form that can run out, with how often they are chosen; kept until the transaction ends. */
async function lockPlaces(db: Database, formId: string): Promise<LimitedOption[]> {
  const [opening] = await db
    .select({ places: openings.places })
    .from(openings)
    .where(eq(openings.formId, formId))
    .for('update')
  return opening?.places ?? []
}

/** The same as it stands now, for a turn of a release. */
export async function loadPlaces(
  db: Database,
  { formId, definition }: { formId: string; definition: Form },
): Promise<LimitedOption[]> {
  if (limitedOptions(definition).length === 0) return []
  const [opening] = await db
    .select({ places: openings.places })
    .from(openings)
    .where(eq(openings.formId, formId))
  return opening?.places ?? []
}

const savePlaces = (db: Database, formId: string, places: LimitedOption[]) =>
  db.update(openings).set({ places }).where(eq(openings.formId, formId))

/** Counts, for a new release, how often the options are chosen that can run out in it: also by responses to earlier releases, which may not have had a limit. */
export async function countPlaces(db: Database, formId: string, form: Form): Promise<void> {
  const [before, limited] = [await lockPlaces(db, formId), limitedOptions(form)]
  if (before.length === 0 && limited.length === 0) return
  const counted: LimitedOption[] = []
  const chosen = new Map<string, ReadonlyMap<string, number>>()
  for (const option of limited) {
    const path = pathOf(option)
    const counts = chosen.get(path) ?? (await countByOption(db, formId, path))
    chosen.set(path, counts)
    counted.push({ ...option, taken: counts.get(option.option) ?? 0 })
  }
  await savePlaces(db, formId, counted)
}

/** Where the answers to a question stand in a response, as an SQL/JSON path; a single choice is read as a list of one. */
const pathOf = ({ groups, question }: LimitedOption): string =>
  ['$', ...groups.map(code => `."${code}"[*]`), `."${question}"[*]`].join('')

/** How often each option is chosen at a path, in the responses of a form that stand. */
async function countByOption(db: Database, formId: string, path: string): Promise<Map<string, number>> {
  const option = sql<string>`chosen.value #>> '{}'`
  const rows = await db
    .select({ option, count: sql<number>`count(*)`.mapWith(Number) })
    .from(responses)
    .innerJoin(releases, eq(releases.id, responses.releaseId))
    .innerJoin(sql`jsonb_path_query(${responses.answers}, ${path}::jsonpath) as chosen(value)`, sql`true`)
    .where(and(eq(releases.formId, formId), isNull(responses.withdrawnAt), isNull(responses.binnedAt)))
    .groupBy(option)
  return new Map(rows.map(r => [r.option, r.count]))
}

/** Takes the places that a response has chosen, and gives back those that it had before. Refused where one has run out: then nothing is stored. */
export async function takePlaces(
  db: Database,
  { formId, definition }: { formId: string; definition: Form },
  before: Answers,
  after: Answers,
): Promise<void> {
  const limited = await lockPlaces(db, formId)
  const changes = limited.map(l => countChosen(after, l) - countChosen(before, l))
  if (changes.every(change => change === 0)) return
  const next = limited.map((l, i) => ({ ...l, taken: Math.max(0, l.taken + (changes[i] ?? 0)) }))
  const gone = next.filter((l, i) => (changes[i] ?? 0) > 0 && l.taken > l.places)
  if (gone.length > 0) refuseGone(definition, gone)
  await savePlaces(db, formId, next)
}

function refuseGone(form: Form, gone: readonly LimitedOption[]): never {
  const problems = gone.map(({ question, option }) => {
    const place = listPlaces(form).find(p => p.code === question)
    const node = place?.node
    const isChoice = node && 'type' in node && (node.type === 'choice' || node.type === 'choices')
    const label = isChoice ? optionsOf(form, node)?.find(o => o.code === option)?.label : undefined
    const of = place ? ` of “${placeName(place)}”` : ''
    return {
      path: question,
      sentence: `“${label ?? option}”${of} has run out meanwhile; please choose again.`,
    }
  })
  return refuse(409, 'run-out', problems[0]?.sentence ?? 'A choice has run out.', problems)
}

/** A response no longer stands: there is room for another one, and what it has chosen is free again. */
export async function giveUp(
  db: Database,
  {
    releaseId,
    answers,
    ...sender
  }: Pick<typeof responses.$inferSelect, 'releaseId' | 'answers' | 'wayId' | 'userId'>,
): Promise<void> {
  const [release] = await db
    .select({ formId: releases.formId, definition: releases.definition })
    .from(releases)
    .where(eq(releases.id, releaseId))
  if (!release) return
  await db
    .update(responseCounts)
    .set({ standing: sql`greatest(0, ${responseCounts.standing} - 1)` })
    .where(eq(responseCounts.formId, release.formId))
  await uncountSender(db, release.formId, sender)
  await takePlaces(db, release, answers, {})
}

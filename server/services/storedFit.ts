import { and, desc, eq, isNull } from 'drizzle-orm'
import { listPlaces } from '../../core/form/walk'
import type { Misfit } from '../../core/parties/refit'
import type { StoredFit } from '../../shared/api/releases'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { runTask } from '../threads/run'
import { loadFormRow } from './drafts'
import { loadHandedOff } from './handedOff'
import { loadVersions } from './versions'
import { loadWorkspace } from './workspace'

/** So many responses are weighed, the newest first; so many at a time. */
const MOST_WEIGHED = 5_000
const AT_ONCE = 500
/** So many responses, and so much of each, are listed. */
const MOST_LISTED = 50
const MOST_SAID = 5

/** What the draft would make of the responses that a form has: which would be incomplete, hold what doesn't fit, or what is not asked any more. Nothing of them is changed. */
export async function weighStored(db: Database, formId: string): Promise<StoredFit> {
  const { draft, revision } = await loadFormRow(db, formId)
  const codes = await codesNow(db, formId, revision)
  const fit: StoredFit = {
    isAll: false,
    weighed: 0,
    missing: 0,
    wrong: 0,
    unasked: 0,
    lines: [],
  }
  const workspace = await loadWorkspace(db)
  while (fit.weighed < MOST_WEIGHED) {
    const rows = await loadRows(db, formId, fit.weighed)
    const handedOff = await loadHandedOff(
      db,
      rows.filter(r => r.turn !== null).map(r => r.id),
    )
    const weighed = rows.map(({ answers, begunOn, people, turn, id, number, release }) => ({
      ...{ answers, begunOn, people, codes: codes.get(release) ?? {} },
      turns: turn === null ? null : (handedOff.get(id) ?? []),
      standing: { release: { number: release }, response: { number }, workspace },
    }))
    const found = await runTask('weighResponses', { form: draft, responses: weighed })
    for (const [i, row] of rows.entries()) addTo(fit, row, found[i] ?? [])
    fit.weighed += rows.length
    fit.isAll = rows.length < AT_ONCE
    if (fit.isAll) break
  }
  return fit
}

const loadRows = (db: Database, formId: string, offset: number) =>
  db
    .select({
      id: responses.id,
      number: responses.number,
      answers: responses.answers,
      begunOn: responses.begunOn,
      people: responses.people,
      turn: responses.turn,
      release: releases.number,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, formId), isNull(responses.withdrawnAt), isNull(responses.binnedAt)))
    .orderBy(desc(responses.sentAt), desc(responses.id))
    .limit(AT_ONCE)
    .offset(offset)

type StoredRow = Awaited<ReturnType<typeof loadRows>>[number]

function addTo(fit: StoredFit, { id, number, release, turn }: StoredRow, misfits: readonly Misfit[]): void {
  for (const kind of new Set(misfits.map(m => m.kind))) fit[kind] += 1
  if (misfits.length === 0 || fit.lines.length === MOST_LISTED) return
  const said = misfits.slice(0, MOST_SAID)
  fit.lines.push({
    id,
    number,
    release,
    isDone: turn === null,
    misfits: said,
    more: misfits.length - said.length,
  })
}

/** What the codes of each release are called in the draft, by the number of the release; those only that are called otherwise. */
async function codesNow(
  db: Database,
  formId: string,
  revision: number,
): Promise<Map<number, Record<string, string>>> {
  const versions = await loadVersions(db, formId, revision)
  return new Map(
    versions.map(({ number, form, newest }) => {
      const names = listPlaces(form).map(({ code }) => [code, newest(code)] as const)
      return [number, Object.fromEntries(names.filter(([from, to]) => from !== to))] as const
    }),
  )
}

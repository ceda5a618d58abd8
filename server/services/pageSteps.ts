import { and, desc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { withoutQuotes } from '../../core/form/quotes'
import type { PageSteps, Step } from '../../shared/api/pageSteps'
import type { Database } from '../store/database'
import { pageSteps, releases } from '../store/schema'
import { refuseUnlessAdmitted } from './admission'
import { findEntrance } from './entrances'
import type { LinkUse } from './links'

/** Up to so many seconds each, and longer: how long a page took. */
const WITHIN = [15, 60, 180, 600] as const
const TIMES = [
  pageSteps.within15,
  pageSteps.within60,
  pageSteps.within180,
  pageSteps.within600,
  pageSteps.longer,
] as const

/** Counts that somebody went on from one section to another, at the beginning from none, at the end to none. @returns whether it is counted: not where the form doesn’t want it, nor of turns and responses under way */
export async function countStep(
  db: Database,
  use: LinkUse,
  { from, to, seconds }: z.output<typeof Step>,
): Promise<boolean> {
  const entrance = await findEntrance(db, use.token)
  if (!entrance || entrance.settings?.countsPages === false) return false
  await refuseUnlessAdmitted(db, use, entrance)
  const [release] = await db
    .select({ form: releases.definition })
    .from(releases)
    .where(eq(releases.id, entrance.releaseId))
  const known = new Set(release?.form.sections.map(s => s.code))
  const { releaseId } = entrance
  if (from !== null && known.has(from)) await count(db, releaseId, from, ['left', timeOf(seconds)])
  if (to !== null && known.has(to)) await count(db, releaseId, to, ['reached'])
  return true
}

type Counted = 'reached' | 'left' | 'within15' | 'within60' | 'within180' | 'within600' | 'longer'
const NAMES = ['within15', 'within60', 'within180', 'within600', 'longer'] as const
function timeOf(seconds: number): Counted {
  const at = WITHIN.findIndex(most => seconds < most)
  return NAMES[at] ?? 'longer'
}

async function count(db: Database, releaseId: string, section: string, what: readonly Counted[]) {
  const more = Object.fromEntries(what.map(name => [name, sql`${pageSteps[name]} + 1`]))
  await db
    .insert(pageSteps)
    .values({ releaseId, section, ...Object.fromEntries(what.map(name => [name, 1])) })
    .onConflictDoUpdate({ target: [pageSteps.releaseId, pageSteps.section], set: more })
}

/** How far people came in one version of a form, section by section, and how long each took. @param number the version; 0: the newest */
export async function loadPageSteps(
  db: Database,
  formId: string,
  number: number,
): Promise<z.output<typeof PageSteps>> {
  const [release] = await db
    .select({ id: releases.id, number: releases.number, form: releases.definition })
    .from(releases)
    .where(and(eq(releases.formId, formId), number === 0 ? undefined : eq(releases.number, number)))
    .orderBy(desc(releases.number))
    .limit(1)
  if (!release) return { version: 0, pages: [] }
  const rows = await db
    .select({
      section: pageSteps.section,
      reached: pageSteps.reached,
      left: pageSteps.left,
      times: timesOf(),
    })
    .from(pageSteps)
    .where(eq(pageSteps.releaseId, release.id))
  const counted = new Map(rows.map(row => [row.section, row]))
  const pages = release.form.sections.flatMap(({ code, title }) => {
    const row = counted.get(code)
    if (!row) return []
    const { reached, left, times } = row
    return [{ code, title: withoutQuotes(title) || code, reached, left, times }]
  })
  return { version: release.number, pages }
}

const timesOf = () =>
  sql<number[]>`array[${sql.join(
    TIMES.map(column => sql`${column}`),
    sql`, `,
  )}]`

import { randomBytes } from 'node:crypto'
import { desc, eq, inArray, sql } from 'drizzle-orm'
import type { Form } from '../../core/form/definition'
import type { Finding } from '../../core/prove/finding'
import type { AcceptedRisk, ReleaseBrief } from '../../shared/api/releases'
import type { Designer } from '../../shared/api/session'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { runTask } from '../threads/run'
import type { Proved } from '../threads/tasks'
import { forms, releases } from '../store/schema'
import { listAcceptances } from './acceptances'
import { isoToday } from './calendar'
import { loadOpening, refuseNaming } from './openings'
import { countPlaces } from './places'

/**
 * Proves the draft once more and freezes it: refused while a fault is open, or a risk that nobody accepted as it stands. The proof runs beside
 * everything else, and the draft is frozen only if nobody has changed it meanwhile.
 */
export async function releaseForm(
  db: Database,
  id: string,
  designer: Designer,
  revision: number,
): Promise<{ number: number; token: string }> {
  const { draft } = await loadRevision(db, id, revision)
  const known = await listAcceptances(db, id)
  const { findings, risks } = await runTask('proveRelease', {
    form: draft,
    today: isoToday(),
    accepted: known,
  })
  refuseFaults(findings)
  const accepted = acceptedOrRefuse(risks)
  return db.transaction(async tx => {
    await loadRevision(tx, id, revision)
    const latest = await latestRelease(tx, id)
    // Two who release the same draft at once, or one twice, make one version.
    if (latest && latest.revision === revision) return { number: latest.number, token: latest.token }
    const made = {
      formId: id,
      number: (latest?.number ?? 0) + 1,
      revision,
      token: randomBytes(12).toString('base64url'),
      definition: draft,
      findings,
      accepted,
      releasedBy: designer.id,
    }
    await tx.insert(releases).values(made)
    const { settings } = await loadOpening(tx, id)
    if (settings.audience.isAnonymous) refuseNaming(draft)
    await countPlaces(tx, id, draft)
    return { number: made.number, token: made.token }
  })
}

/** A draft as somebody looked at it, kept as it is until the transaction ends; refused when it was changed since. */
async function loadRevision(db: Database, id: string, revision: number): Promise<{ draft: Form }> {
  const [row] = await db.select().from(forms).where(eq(forms.id, id)).for('update')
  if (!row) return refuse(404, 'not-found', 'There is no such form.')
  if (row.revision !== revision)
    refuse(409, 'outdated', 'The draft has changed since you looked. Look at it again, then release.')
  return row
}

async function latestRelease(db: Database, formId: string) {
  const [latest] = await db
    .select({ number: releases.number, revision: releases.revision, token: releases.token })
    .from(releases)
    .where(eq(releases.formId, formId))
    .orderBy(desc(releases.number))
    .limit(1)
  return latest
}

function refuseFaults(findings: readonly Finding[]) {
  const faults = findings.filter(f => f.severity === 'fault')
  if (faults.length === 0) return
  const are = faults.length === 1 ? 'A fault is' : `${faults.length} faults are`
  refuse(422, 'open-faults', `${are} open, so this can’t be released.`, faults.map(asProblem))
}

/** The risks of a draft with the reasons for which they were accepted; refused when one has none. */
function acceptedOrRefuse(risks: Proved['risks']): AcceptedRisk[] {
  const open = risks.filter(r => !r.accepted).map(r => r.finding)
  if (open.length > 0) {
    const need = open.length === 1 ? 'A risk needs' : `${open.length} risks need`
    refuse(422, 'open-risks', `${need} a reason before this is released.`, open.map(asProblem))
  }
  return risks.map(({ finding, accepted }) => ({
    finding,
    reason: accepted?.reason ?? '',
    by: accepted?.by ?? '',
  }))
}

const asProblem = (f: Finding) => ({ path: f.at ?? '', sentence: f.sentence })

/** The releases of a form, the newest first. */
export async function listReleases(db: Database, formId: string): Promise<ReleaseBrief[]> {
  const rows = await db
    .select({
      id: releases.id,
      number: releases.number,
      token: releases.token,
      releasedAt: releases.releasedAt,
      withdrawnAt: releases.withdrawnAt,
      accepted: releases.accepted,
      revision: releases.revision,
      sameAsDraft: sql<boolean>`${releases.definition} = ${forms.draft}`,
    })
    .from(releases)
    .innerJoin(forms, eq(releases.formId, forms.id))
    .where(eq(releases.formId, formId))
    .orderBy(desc(releases.number))
  return rows.map(r => ({
    ...r,
    releasedAt: r.releasedAt.toISOString(),
    withdrawnAt: r.withdrawnAt?.toISOString() ?? null,
  }))
}

/** What some releases have frozen, by release. */
export async function loadDefinitions(db: Database, ids: readonly string[]): Promise<Map<string, Form>> {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: releases.id, definition: releases.definition })
    .from(releases)
    .where(inArray(releases.id, [...ids]))
  return new Map(rows.map(r => [r.id, r.definition]))
}

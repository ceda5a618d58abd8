import { randomBytes } from 'node:crypto'
import { aliasedTable, and, desc, eq, inArray, sql } from 'drizzle-orm'
import type { Form } from '../../core/form/definition'
import { listMeaningChanges, meaningKey, sayMeaning } from '../../core/lists/meanings'
import type { Finding } from '../../core/prove/finding'
import type { AcceptedRisk, ApprovalAsked, CheckedProof, ReleaseBrief } from '../../shared/api/releases'
import type { Designer } from '../../shared/api/session'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { runTask } from '../threads/run'
import type { Proved } from '../threads/tasks'
import { forms, openings, releases, users } from '../store/schema'
import { refuseForeignTemplates } from './documents/refuseForeign'
import { listAcceptances } from './acceptances'
import { isoToday } from './calendar'
import { ensureOpening, loadOpening, refuseNaming } from './openings'
import { countPlaces } from './places'

/**
 * Proves the draft once more and freezes it: refused while a fault is open, or a risk that nobody accepted as it stands. The proof runs beside
 * everything else, and the draft is frozen only if nobody has changed it meanwhile.
 */
export async function releaseForm(
  db: Database,
  id: string,
  designer: Designer,
  { revision, note = '', sameMeanings = [] }: { revision: number; note?: string; sameMeanings?: string[] },
): Promise<{ number: number; token: string }> {
  const { draft } = await loadRevision(db, id, revision)
  const known = await listAcceptances(db, id)
  const { findings, tally, risks } = await runTask('proveRelease', {
    form: draft,
    today: isoToday(),
    accepted: known,
  })
  refuseFaults(findings)
  await refuseForeignTemplates(db, draft)
  const risky = acceptedOrRefuse(risks)
  return db.transaction(async tx => {
    await loadRevision(tx, id, revision)
    const latest = await latestRelease(tx, id)
    // Two who release the same draft at once, or one twice, make one version.
    if (latest && latest.revision === revision) return { number: latest.number, token: latest.token }
    // What a version from before revisions were kept meant, nobody could look at.
    const before = latest && latest.revision !== null ? latest.definition : undefined
    const accepted = [...risky, ...acceptMeanings(before, draft, sameMeanings, designer)]
    const { settings, approval } = await loadOpening(tx, id)
    if (settings.audience.isAnonymous) refuseNaming(draft)
    if (settings.needsApproval) refuseUnapproved(approval, revision, designer)
    const made = {
      formId: id,
      number: (latest?.number ?? 0) + 1,
      revision,
      token: randomBytes(12).toString('base64url'),
      definition: draft,
      findings,
      accepted,
      releasedBy: designer.id,
      askedBy: settings.needsApproval ? (approval?.by ?? null) : null,
      note: note || (approval?.note ?? ''),
      tally,
    }
    await tx.insert(releases).values(made)
    await tx.update(openings).set({ approval: null }).where(eq(openings.formId, id))
    await countPlaces(tx, id, draft)
    return { number: made.number, token: made.token }
  })
}

/** Refuses a release that nobody asks for as it stands, or that is asked for by whoever would release it. */
function refuseUnapproved(approval: ApprovalAsked | null, revision: number, designer: Designer): void {
  if (approval === null || approval.revision !== revision)
    return refuse(
      409,
      'needs-approval',
      'A second person approves each version of this form. Ask for it first.',
    )
  if (approval.by === designer.id)
    refuse(403, 'own-approval', 'You have asked for this version yourself: somebody else approves it.')
}

/** Asks that somebody else approves the draft as it stands, or takes that back. */
export async function askApproval(
  db: Database,
  id: string,
  { id: by, name }: Designer,
  asked: { revision: number; note: string } | null,
): Promise<void> {
  await db.transaction(async tx => {
    if (asked) await loadRevision(tx, id, asked.revision)
    await ensureOpening(tx, id)
    const approval = asked && { ...asked, by, name, at: new Date().toISOString() }
    await tx.update(openings).set({ approval }).where(eq(openings.formId, id))
  })
}

/** Proves a release once more, on the day on which it was released, and compares that with the proof that was kept. */
export async function checkProof(db: Database, formId: string, number: number): Promise<CheckedProof> {
  const [release] = await db
    .select()
    .from(releases)
    .where(and(eq(releases.formId, formId), eq(releases.number, number)))
  if (!release) return refuse(404, 'not-found', 'There is no such version.')
  const today = release.releasedAt.toISOString().slice(0, 10)
  const { findings, tally } = await runTask('proveRelease', { form: release.definition, today, accepted: [] })
  const differing = (some: readonly Finding[], others: readonly Finding[]) => {
    const known = new Set(others.map(f => `${f.code} ${f.address} ${f.sentence}`))
    return some.filter(f => !known.has(`${f.code} ${f.address} ${f.sentence}`)).map(f => f.sentence)
  }
  return {
    tally,
    fresh: differing(findings, release.findings),
    gone: differing(release.findings, findings),
  }
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
    .select({
      number: releases.number,
      revision: releases.revision,
      token: releases.token,
      definition: releases.definition,
    })
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

/** Refuses a code that means something else than in the version before. Where only its words are all others, whoever releases it may say that they mean the same: that is kept as a risk that they answer for. */
function acceptMeanings(
  before: Form | undefined,
  draft: Form,
  same: readonly string[],
  { name }: Designer,
): AcceptedRisk[] {
  const changed = before ? listMeaningChanges(before, draft) : []
  const open = changed.filter(change => change.isCertain || !same.includes(meaningKey(change)))
  if (open.length > 0)
    refuse(
      422,
      'other-meaning',
      'A code means something else than in the version before: give it a new one, or say that it means the same.',
      open.map(change => ({ path: change.code, sentence: sayMeaning(change) })),
    )
  return changed.map(change => ({
    finding: {
      ...{ code: 'other-meaning', severity: 'risk', at: change.code, address: change.address, rule: null },
      ...{
        sentence: sayMeaning(change),
        conflict: [],
        turn: null,
        marked: null,
        inList: null,
        witness: null,
      },
      ...{ folded: [], mend: null, today: null },
    },
    reason: 'It means the same.',
    by: name,
  }))
}

const asProblem = (f: Finding) => ({ path: f.at ?? '', sentence: f.sentence })

const askers = aliasedTable(users, 'askers')

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
      note: releases.note,
      releasedBy: sql<string>`coalesce(${users.name}, '')`,
      askedBy: sql<string>`coalesce(${askers.name}, '')`,
      revision: releases.revision,
      sameAsDraft: sql<boolean>`${releases.definition} = ${forms.draft}`,
    })
    .from(releases)
    .innerJoin(forms, eq(releases.formId, forms.id))
    .leftJoin(users, eq(users.id, releases.releasedBy))
    .leftJoin(askers, eq(askers.id, releases.askedBy))
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

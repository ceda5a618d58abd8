import { standingNamesIn, type Standing } from '../../core/form/standing'
import { partyOf } from '../../core/parties/turns'
import type { Workspace } from '../../shared/api/people'
import type { Database } from '../store/database'
import { workspace } from '../store/schema'
import type { LinkTarget } from './links'

/** What the workspace says of itself; empty until somebody wrote it. */
export async function loadWorkspace(db: Database): Promise<Workspace> {
  const [row] = await db.select({ name: workspace.name, address: workspace.address }).from(workspace)
  return row ?? { name: '', address: '' }
}

/** Keeps what the workspace says of itself. */
export async function saveWorkspace(db: Database, said: Workspace): Promise<void> {
  await db.insert(workspace).values(said).onConflictDoUpdate({ target: workspace.id, set: said })
}

/** What texts may quote besides answers, for whoever opens a link. The link itself is known where it is opened. */
export async function standingOf(
  db: Database,
  { release, turn, response }: Pick<LinkTarget, 'release' | 'turn' | 'response'>,
): Promise<Standing> {
  const party = turn && partyOf(release.definition, turn)
  const by = turn?.by
  return {
    release: { number: release.number },
    response: { number: response?.number ?? null },
    party: { name: party?.name ?? null },
    team: { name: typeof by === 'object' && 'people' in by ? by.people : null },
    workspace: standingNamesIn(release.definition).has('workspace') ? await loadWorkspace(db) : {},
  }
}

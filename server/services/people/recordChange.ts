import type { Database } from '../../store/database'
import type { User } from './passwords'
import { keepRecord, type Act, type Doer } from './record'

/** Writes what an admin changed about somebody, a line for each thing. `before`: as they were. */
export async function recordChange(
  db: Database,
  doer: Doer,
  before: User,
  {
    name,
    role,
    isSuspended,
    withoutSecondFactor,
  }: { name?: string; role?: string; isSuspended?: boolean; withoutSecondFactor?: true },
): Promise<void> {
  const lines: [Act, Record<string, string>][] = []
  if (name !== undefined && name !== before.name) lines.push(['person changed', { name }])
  if (role !== undefined && role !== before.role)
    lines.push(['person changed', { role: `${before.role} → ${role}` }])
  if (isSuspended === true && before.suspendedAt === null) lines.push(['suspended', {}])
  if (isSuspended === false && before.suspendedAt !== null) lines.push(['let in again', {}])
  if (withoutSecondFactor) lines.push(['second factor removed', {}])
  for (const [act, details] of lines) await keepRecord(db, doer, act, { about: before.name, details })
}

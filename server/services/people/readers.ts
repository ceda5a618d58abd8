import { and, eq, isNull, or, sql } from 'drizzle-orm'
import type { Database } from '../../store/database'
import { formRights, teamMembers, users } from '../../store/schema'

/** Who may see the responses of a form, by themselves or through a team: colleagues who can be told of one. */
export const listReaders = (db: Database, formId: string): Promise<{ email: string; name: string }[]> =>
  db
    .selectDistinct({ email: users.email, name: users.name })
    .from(formRights)
    .leftJoin(teamMembers, eq(teamMembers.teamId, formRights.teamId))
    .innerJoin(users, or(eq(users.id, formRights.userId), eq(users.id, teamMembers.userId)))
    .where(
      and(
        eq(formRights.formId, formId),
        isNull(users.suspendedAt),
        sql`jsonb_exists_any(${formRights.rights}, array['own', 'responses'])`,
      ),
    )
    .orderBy(users.name)

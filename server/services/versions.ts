import { desc, eq, sql, type SQL } from 'drizzle-orm'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import type { Form } from '../../core/form/definition'
import { withKeptPeople, type PeopleRows } from '../../core/lists/people'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { codeAt, loadRenames } from './renames'

/** A release of a form whose responses are read together with those of others. */
export interface Definition {
  number: number
  form: Form
  /** What a code is called in the newest release, or in the state that was asked for: columns follow their question. */
  newest: (code: string) => string
}

/** The definitions of a form's releases, the newest first. @param state the revision by whose names codes go; that of the newest release unless it is given */
export async function loadVersions(db: Database, formId: string, state?: number): Promise<Definition[]> {
  const rows = await db
    .select({ number: releases.number, form: releases.definition, revision: releases.revision })
    .from(releases)
    .where(eq(releases.formId, formId))
    .orderBy(desc(releases.number))
  const renames = rows.length > 1 || state !== undefined ? await loadRenames(db, formId) : []
  const until = state ?? rows[0]?.revision ?? 0
  return rows.map(({ number, form, revision }) => ({
    number,
    form,
    newest: code => (revision === null ? code : codeAt(code, revision, until, renames)),
  }))
}

/** What each code of the newest version is called in an older one; those only that it has. */
export function codesOf({ form, newest }: Definition): Record<string, string> {
  const plan = planOf(form)
  const codes = [...plan.byCode.keys(), ...plan.groups.keys()]
  return Object.fromEntries(codes.map(code => [newest(code), code]))
}

/** The plan of a release for responses that chose the same people: made when it is needed first. */
export function plansOf(definitions: readonly Definition[]) {
  const plans = new Map<string, Plan>()
  return (release: number, people: PeopleRows | null): Plan | undefined => {
    const form = definitions.find(d => d.number === release)?.form
    const key = `${release} ${JSON.stringify(people)}`
    const plan = plans.get(key) ?? (form && planOf(withKeptPeople(form, people)))
    if (plan) plans.set(key, plan)
    return plan
  }
}

/** The stored answer to a question of the newest release, whatever it was called in older ones, as JSON. */
export function answerOf(code: string, definitions: readonly Definition[]): SQL {
  const older = definitions.flatMap(({ number, form, newest }) => {
    const own = planOf(form).questions.find(q => newest(q.place.code) === code)?.place.code
    return own !== undefined && own !== code ? [sql`when ${number}::integer then ${own}::text`] : []
  })
  const called =
    older.length === 0
      ? sql`${code}::text`
      : sql`(case ${releases.number} ${sql.join(older, sql` `)} else ${code}::text end)`
  return sql`(${responses.answers} -> ${called})`
}

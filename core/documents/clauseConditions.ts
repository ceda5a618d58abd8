import type { Expr } from '../expressions/tree'
import { BOOLEAN } from '../expressions/types'
import type { Plan } from '../fill/planned'
import { standsOf } from './checkTags'
import { tagsOf } from './templateTags'

/** The conditions of the clauses of all documents of a form, as far as they are asked of the response as a whole and can be read. */
export const clauseConditions = (plan: Plan): Expr[] =>
  (plan.form.documents ?? []).flatMap(({ template }) => {
    const tags = tagsOf(template)
    const stands = standsOf(plan, tags)
    return tags.flatMap((tag, i): Expr[] => {
      const stand = stands[i]?.stand
      if (tag.is !== 'when' || !stand || stand.entryOf !== null) return []
      const { expr } = plan.names.read(tag.source, stand, BOOLEAN)
      return expr ? [expr] : []
    })
  })

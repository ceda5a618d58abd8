import { getRouterParam, sendRedirect } from 'h3'
import { answering } from '../../http/route'
import { sourceOf } from '../../http/source'
import { findByCode } from '../../services/openings'
import { countTry } from '../../services/people/tallies'
import { database } from '../../store/current'

/** A short address leads on to the form’s own; one that nobody has leads where a wrong link does. For anyone, counted by source. */
export default answering(async event => {
  const db = await database()
  await countTry(db, 'shortBySource', sourceOf(event))
  const token = await findByCode(db, getRouterParam(event, 'code') ?? '')
  return sendRedirect(event, `/f/${token ?? 'unknown'}`, 302)
})

import { fill, offeredNow, type Filled, type Frame } from '../../core/fill/fill'
import type { PlannedGroup } from '../../core/fill/planned'
import type { OfferedRow } from '../../core/form/rows'
import { publicRow, searchRows } from '../../core/lists/searchRows'
import { accessViewOf, mayFill } from '../../core/parties/access'
import { withTurn } from '../../core/parties/turns'
import type { RowSearch } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { resolveLink, type LinkUse } from './links'

/** How many rows are given back for what was typed. */
const MOST_FOUND = 50

/** Rows of a long list that are on offer and fit what was typed: narrowed by the answers as they are, which are decided here. */
export async function findOfferedRows(
  db: Database,
  use: LinkUse,
  search: RowSearch,
): Promise<{ rows: OfferedRow[]; count: number }> {
  const { plan, turn, response } = await resolveLink(db, use)
  const { answers } = withTurn(plan, turn, response?.answers ?? {}, search.answers)
  const filled = fill(plan, answers, response?.begunOn ?? search.begunOn)
  const question = plan.byCode.get(search.path.replace(/^.*\./, ''))
  const view = accessViewOf(plan.form, plan.places, turn)
  if (!question?.offer || !mayFill(view, question.place))
    return refuse(422, 'no-choice', 'This form has no such choice here.')
  const frame = frameAt(filled, search.path)
  if (!frame) return refuse(422, 'no-choice', 'There is no such entry.')
  const offered = offeredNow(frame, question)
  const { rows, count } = searchRows(question.offer.index, offered, search.typed, MOST_FOUND)
  return { rows: rows.map(publicRow), count }
}

/** The frame of a path such as `engines[1].fuel`: the response, or an entry in it; null where there is no such entry. */
function frameAt(filled: Filled, path: string): Frame | null {
  let frame: Frame | null = filled
  for (const [, code = '', index = ''] of path.matchAll(/([a-z][a-z0-9_]*)\[(\d+)\]\./g)) {
    const group: PlannedGroup | undefined = filled.plan.groups.get(code)
    frame = (group && frame?.entries.get(group.place.order)?.[Number(index)]) ?? null
  }
  return frame
}

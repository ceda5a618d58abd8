import type { Row } from '../../core/form/choiceLists'
import type { Form } from '../../core/form/definition'
import type { Edit } from '../../core/form/edits'
import { PEOPLE_COLUMNS, peopleLists, type PeopleRows } from '../../core/lists/people'
import type { Database } from '../store/database'
import { loadFormRow, saveOnTop } from './drafts'
import { presentPeople } from './teamRows'

/** Brings the lists of a draft that are fed by teams to the people who are in these now, in somebody's name. */
export async function bringTeamsToDraft(db: Database, id: string, userId: string): Promise<void> {
  const { draft } = await loadFormRow(db, id)
  if (teamEdits(draft, await presentPeople(db, draft)).length === 0) return
  await saveOnTop(db, id, userId, async now => teamEdits(now, await presentPeople(db, now)))
}

/** The edits that bring lists of people to other rows; none where they have them. */
function teamEdits(form: Form, present: PeopleRows): Edit[] {
  return peopleLists(form).flatMap((list): Edit[] => {
    const rows = present[list.code]
    if (!rows || isSame(rows, list.rows)) return []
    const what = `list/${list.code}`
    return [
      { do: 'change', what, set: { columns: PEOPLE_COLUMNS } },
      { do: 'splice', what, at: 0, remove: list.rows.length, rows: [...rows] },
    ]
  })
}

const isSame = (a: readonly Row[], b: readonly Row[]): boolean =>
  a.length === b.length &&
  a.every((row, i) => {
    const other = b[i]
    return row.code === other?.code && row.label === other.label && row.email === other.email
  })

import type { Form } from '../../form/definition'
import type { ChoiceList } from '../../form/choiceLists'
import { rowsAlike, type RowProblem } from '../../lists/integrity'
import { changeEdits } from '../../lists/changes'
import type { Finding, Severity } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import type { Check } from './check'
import { example, section } from './exampleForms'

const COASTS: ChoiceList = {
  code: 'coasts',
  rows: [
    { code: 'north', label: 'North coast' },
    { code: 'east', label: 'East coast' },
  ],
}
const harbours = (rows: ChoiceList['rows']): ChoiceList => ({ code: 'harbours', columns: ['coast'], rows })
/** A form with two linked lists, for the examples of checks about rows. */
export const withLists = (
  rows: ChoiceList['rows'],
  more: Partial<Extract<Form['sections'][number]['items'][number], { type: 'choice' }>> = {},
): Form => ({
  ...example(
    section('place', [
      { kind: 'question', type: 'choice', code: 'coast', label: 'Coast', list: 'coasts', required: true },
      {
        kind: 'question',
        type: 'choice',
        code: 'harbour',
        label: 'Harbour',
        list: 'harbours',
        narrowedBy: 'row.coast = coast',
        ...more,
      },
    ]),
  ),
  lists: [COASTS, harbours(rows)],
})
export const GOOD_ROWS: ChoiceList['rows'] = [
  { code: 'saltmarsh', label: 'Saltmarsh Basin', coast: 'north' },
  { code: 'osier', label: 'Osier Creek', coast: 'east' },
]

interface RowCheck {
  code: RowProblem['kind']
  severity: Severity
  about: string
  raises: ChoiceList['rows']
}

/** A check that reports one kind of problem of lists' rows. */
export const rowCheck = ({ code, severity, about, raises }: RowCheck): Check => ({
  code,
  severity,
  about,
  raises: withLists(raises),
  spares: withLists(GOOD_ROWS),
  run: inquiry =>
    inquiry.integrity.filter(p => p.kind === code).map(p => rowFinding(inquiry, { code, severity }, p)),
})

/** So many rows are told with a finding. */
const MOST_SHOWN = 12

function rowFinding(
  { form }: Inquiry,
  kind: { code: string; severity: Severity },
  problem: RowProblem,
): Finding {
  const list = form.lists?.find(l => l.code === problem.list)
  const rows = list?.rows ?? []
  return {
    ...kind,
    at: problem.list,
    address: `list/${problem.list}`,
    rule: null,
    sentence: `In the list “${list?.title ?? problem.list}”: ${problem.sentence}`,
    conflict: [],
    turn: null,
    marked: null,
    inList: { rows: rowsAlike(rows, problem).slice(0, MOST_SHOWN), column: problem.column },
    witness: null,
    folded: [],
    today: null,
    mend: problem.mend
      ? {
          words: problem.mend.words,
          edits: changeEdits(
            `list/${problem.list}`,
            rows,
            new Map(problem.mend.rows.map(r => [r.at, r.row])),
          ),
        }
      : null,
  }
}

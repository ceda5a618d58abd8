import { applyEdits, EditError, type Edit } from '../../core/form/edits'
import type { Form } from '../../core/form/definition'
import { placeProposal, type Proposal } from '../../core/form/proposals'
import { readForm, type ReadResult } from '../../core/form/read'
import type { Answers } from '../../core/form/answers'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import { withKeptPeople, type PeopleRows } from '../../core/lists/people'
import { findMisfits, type Misfit, type StoredResponse } from '../../core/parties/refit'
import { accessViewOf } from '../../core/parties/access'
import { turnOf } from '../../core/parties/turns'
import { matchSheets, sheetsCalledIn, type EntrySheet } from '../../core/formats/readEntries'
import { asCalledIn, matchColumns } from '../../core/formats/readTable'
import { weighRow, type RowGiven, type WeighedRow } from '../../core/formats/weighRow'
import type { Measure } from '../../core/summary/measures'
import { readCells, type Cell } from '../../core/summary/readCells'
import { findAcceptance, type Accepted } from '../../core/prove/acceptance'
import type { Finding, Tally } from '../../core/prove/finding'
import { prove } from '../../core/prove/prove'
import { API } from '../../shared/api/endpoints'
import { readJson, type ReadJson } from '../http/readJson'
import {
  contentOf,
  fillTemplate,
  readTemplate,
  renameTags,
  sealDocument,
  setPdf,
  type DocumentToSeal,
  type TemplateToFill,
  type TemplateToRead,
} from './documents'
import { makePdf, type CopiesToSet } from './makePdf'

/** What edits made of a form; or why they can't be made of it. */
export type Edited = ReadResult | { form: null; problems: null; impossible: string }

/** Makes edits in a form, and reads it anew. */
function editForm({ form, edits }: { form: Form; edits: Edit[] }): Edited {
  try {
    return readForm(applyEdits(form, edits).form)
  } catch (error) {
    if (error instanceof EditError) return { form: null, problems: null, impossible: error.message }
    throw error
  }
}

/** The edits of a proposal as they are made of a form; or why they can't be. */
export type Placed = { edits: Edit[] } | { impossible: string }

function placeInForm({ form, proposal }: Inputs['placeProposal']): Placed {
  try {
    return { edits: placeProposal(form, proposal) }
  } catch (error) {
    if (error instanceof EditError) return { impossible: error.message }
    throw error
  }
}

/** What is known of a draft that is to be released: what was found, and who answers for each risk as it stands; null: nobody. */
export interface Proved {
  findings: Finding[]
  tally: Tally
  risks: { finding: Finding; accepted: Accepted | null }[]
}

function proveRelease({ form, today, accepted }: Inputs['proveRelease']): Proved {
  const { findings, tally } = prove(form, today)
  const risks = findings
    .filter(f => f.severity === 'risk')
    .map(finding => {
      const found = findAcceptance(form, finding, accepted)
      return { finding, accepted: found?.stands ? found.accepted : null }
    })
  return { findings, tally, risks }
}

/** Says of responses what would be wrong with them in another version. `codes`: what the codes of their version are called there, where that is otherwise. */
function weighResponses({ form, responses }: Inputs['weighResponses']): Misfit[][] {
  const plans = new Map<string, Plan>()
  return responses.map(({ people, codes, ...response }) => {
    const key = JSON.stringify(people)
    const plan = plans.get(key) ?? planOf(withKeptPeople(form, people))
    plans.set(key, plan)
    return findMisfits(plan, response, code => codes[code] ?? code)
  })
}

/** A stored response as it is weighed against another version. */
export interface Weighed extends StoredResponse {
  people: PeopleRows | null
  codes: Readonly<Record<string, string>>
}

/** What each response holds of what is summarised. */
function readCellsOf({ form, measures, codes, responses }: Inputs['readCells']): Cell[][] {
  const plans = new Map<string, Plan>()
  return responses.map(({ answers, begunOn, people, turns }) => {
    const key = JSON.stringify(people)
    const plan = plans.get(key) ?? planOf(withKeptPeople(form, people))
    plans.set(key, plan)
    const views = turns?.map(code => accessViewOf(plan.form, plan.places, turnOf(plan.form, code))) ?? null
    const own = (code: string) => plan.byCode.get(codes[code] ?? '')
    return readCells(measures, fill(plan, answers, begunOn), own, views)
  })
}

/** Says of rows of a table what they would make of the responses to one version; heads go by the newest. */
function weighRowsOf({ form, newest, codes, heads, sheets, rows, today }: Inputs['weighRows']): {
  unread: string[]
  rows: WeighedRow[]
} {
  const codeOf = (code: string) => codes[code] ?? code
  const matched = matchColumns(planOf(newest), heads, (filled, code) => filled.plan.byCode.get(codeOf(code)))
  const matchedSheets = matchSheets(planOf(newest), sheets)
  const plans = new Map<string, Plan>()
  return {
    unread: [
      ...matched.flatMap(column => (column.key === null ? [column.head] : [])),
      ...matchedSheets.flatMap(({ name, columns }) =>
        columns.flatMap(({ head, code }) => (code === null ? [`${name}: ${head}`] : [])),
      ),
    ],
    rows: rows.map(({ given, stored, people }) => {
      const key = JSON.stringify(people)
      const plan = plans.get(key) ?? planOf(withKeptPeople(form, people))
      plans.set(key, plan)
      const columns = asCalledIn(plan, matched, codeOf)
      const table = { columns, sheets: sheetsCalledIn(matchedSheets, codeOf) }
      return weighRow(plan, table, given, stored, today)
    }),
  }
}

/** A response as it is summarised; `turns`: those that were taken, null where it is done. */
export interface SummarisedResponse {
  answers: Answers
  begunOn: string
  people: PeopleRows | null
  turns: readonly string[] | null
}

/** The tasks by name: what goes into each. Plain data, as it goes between threads. */
export interface Inputs {
  proveRelease: { form: Form; today: string; accepted: Accepted[] }
  editForm: { form: Form; edits: Edit[] }
  placeProposal: { form: Form; proposal: Proposal }
  weighResponses: { form: Form; responses: Weighed[] }
  /** `codes`: what each code of the measures’ version is called in this one. */
  readCells: {
    form: Form
    measures: readonly Measure[]
    codes: Readonly<Record<string, string>>
    responses: SummarisedResponse[]
  }
  /** `codes`: what each code of the newest version is called in this one. */
  weighRows: {
    form: Form
    newest: Form
    codes: Readonly<Record<string, string>>
    heads: readonly string[]
    sheets: readonly EntrySheet[]
    today: string
    rows: {
      given: RowGiven
      stored: { answers: Answers; begunOn: string } | null
      people: PeopleRows | null
    }[]
  }
  makePdf: CopiesToSet
  readTemplate: TemplateToRead
  fillTemplate: TemplateToFill
  setPdf: { bytes: Uint8Array; title: string }
  readContent: { bytes: Uint8Array }
  sealDocument: DocumentToSeal
  renameTags: Parameters<typeof renameTags>[0]
  readDefinition: unknown
  readBody: { endpoint: keyof typeof API; bytes: Uint8Array }
}
/** What comes out of each. */
export interface Results {
  proveRelease: Proved
  editForm: Edited
  placeProposal: Placed
  weighResponses: Misfit[][]
  readCells: Cell[][]
  weighRows: { unread: string[]; rows: WeighedRow[] }
  makePdf: Uint8Array
  readTemplate: ReturnType<typeof readTemplate>
  fillTemplate: Awaited<ReturnType<typeof fillTemplate>>
  setPdf: Uint8Array
  readContent: ReturnType<typeof contentOf>
  sealDocument: Uint8Array
  renameTags: Uint8Array | null
  readDefinition: ReadResult
  readBody: ReadJson
}
export type TaskName = keyof Inputs

/** The work that may take long: done beside the thread that answers requests. */
export const TASKS: { readonly [N in TaskName]: (input: Inputs[N]) => Results[N] | Promise<Results[N]> } = {
  proveRelease,
  editForm,
  placeProposal: placeInForm,
  weighResponses,
  readCells: readCellsOf,
  weighRows: weighRowsOf,
  makePdf,
  readTemplate,
  fillTemplate,
  setPdf,
  readContent: contentOf,
  sealDocument,
  renameTags,
  readDefinition: readForm,
  readBody: ({ endpoint, bytes }) => {
    const { body } = { body: undefined, ...API[endpoint] }
    if (!body) throw new Error(`${endpoint} has no body to read.`)
    return readJson(bytes, body)
  },
}

import type { Answers } from '../form/answers'
import type { ChoiceList, Row } from '../form/choiceLists'
import type { Form } from '../form/definition'

/** Rows of lists of people, by the code of the list. */
export type PeopleRows = Readonly<Record<string, readonly Row[]>>

/** The columns of a list of people. */
export const PEOPLE_COLUMNS: ChoiceList['columns'] = [{ code: 'email', label: 'E-mail', type: 'text' }]

/** The lists of a form whose rows are the people of a team. */
export const peopleLists = (form: Form): (ChoiceList & { people: string })[] =>
  (form.lists ?? []).flatMap(list => (list.people === undefined ? [] : [{ ...list, people: list.people }]))

/**
 * A form whose lists of people have other rows: those of `first`, then those of `then` whose people are not among them. A list that
 * `first` does not have keeps its own in their place.
 */
export function withPeople(form: Form, first: PeopleRows, then: PeopleRows): Form {
  if (!form.lists?.some(list => list.people !== undefined)) return form
  const filled = (list: ChoiceList): ChoiceList => {
    if (list.people === undefined) return list
    const rows = first[list.code] ?? list.rows
    const known = new Set(rows.map(row => row.code))
    const others = (then[list.code] ?? []).filter(row => !known.has(row.code))
    return { ...list, rows: [...rows, ...others] }
  }
  return { ...form, lists: form.lists.map(filled) }
}

/** A form as it was answered: with the people whom a response has chosen, as they were called then. */
export const withKeptPeople = (form: Form, kept: PeopleRows | null): Form =>
  withPeople(form, kept ?? {}, Object.fromEntries(peopleLists(form).map(list => [list.code, list.rows])))

/** Rows with others beside them; of one person the later one counts. */
export function mergePeople(before: PeopleRows, later: PeopleRows): Record<string, Row[]> {
  const codes = new Set([...Object.keys(before), ...Object.keys(later)])
  const merged = (code: string) => {
    const rows = [...(before[code] ?? []), ...(later[code] ?? [])]
    return [...new Map(rows.map(row => [row.code, row])).values()]
  }
  return Object.fromEntries([...codes].map(code => [code, merged(code)]))
}

/** The people that answers choose, as their lists have them; empty where there are none. */
export function chosenPeople(form: Form, answers: Answers): PeopleRows {
  const chosen = new Set(textsIn(answers))
  const rows = peopleLists(form).map(
    list => [list.code, list.rows.filter(row => chosen.has(row.code))] as const,
  )
  return Object.fromEntries(rows.filter(([, own]) => own.length > 0))
}

/** Every text in answers, however deep it stands. */
function textsIn(value: unknown): string[] {
  if (typeof value === 'string') return [value]
  if (Array.isArray(value)) return value.flatMap(textsIn)
  if (typeof value === 'object' && value !== null) return Object.values(value).flatMap(textsIn)
  return []
}

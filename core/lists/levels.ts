import { listsOf } from '../form/transform'
import { codeFromLabel, freeCode } from '../form/codes'
import type { Form } from '../form/definition'
import type { ChoiceList, Row } from '../form/choiceLists'
import { columnsOf } from '../form/types'
import { listPlaces } from '../form/walk'
import type { Link } from './integrity'

/** A row in a tree of lists, with how many rows stand below it and the first of those. */
export interface Branch {
  row: Row
  list: string
  count: number
  below: Branch[]
}

/** The tree that linked lists make, from the lists that have no parent; each level at most `most` rows. */
export function treeOf(
  lists: readonly ChoiceList[],
  root: ChoiceList,
  links: readonly Link[],
  most: number,
  depth = 6,
): Branch[] {
  const children =
    depth <= 0
      ? []
      : links
          .filter(l => l.parent === root.code)
          .flatMap(link => {
            const list = lists.find(l => l.code === link.list)
            return list ? [{ list, link }] : []
          })
  const grouped = children.map(({ list, link }) => ({ list, rows: groupBy(list, link.column) }))
  return root.rows
    .filter(r => r.retired !== true)
    .slice(0, most)
    .map((row): Branch => {
      const below = grouped.flatMap(({ list, rows }) =>
        treeOf(lists, { ...list, rows: rows.get(row.code) ?? [] }, links, most, depth - 1),
      )
      return {
        row,
        list: root.code,
        count: grouped.reduce((n, g) => n + (g.rows.get(row.code)?.length ?? 0), 0),
        below,
      }
    })
}

function groupBy(list: ChoiceList, column: string): Map<string, Row[]> {
  const groups = new Map<string, Row[]>()
  for (const row of list.rows) {
    if (row.retired === true) continue
    const key = String(row[column] ?? '')
    groups.set(key, [...(groups.get(key) ?? []), row])
  }
  return groups
}

/**
 * Splits a flat table with one column for each level (coast, harbour, and the row itself a pontoon) into linked lists: one list for each
 * level, each below the first with a column for its parent. The list itself keeps its code and becomes the last level.
 * @param levels columns of the list, the outermost first
 * @returns the new lists, outermost first, the list itself last
 */
export function splitLevels(
  list: ChoiceList,
  levels: readonly string[],
  taken: ReadonlySet<string>,
): ChoiceList[] {
  const used = new Set(taken)
  const made = levels.map(column => {
    const code = freeCode(column.endsWith('s') ? column : `${column}s`, used)
    used.add(code)
    return { column, code, rows: [] as Row[], known: new Map<string, string>(), codes: new Set<string>() }
  })
  const rows = list.rows.map((row): Row => {
    let [parent, path] = ['', '']
    const own: Row = { ...row }
    made.forEach((level, i) => {
      const label = String(row[level.column] ?? '').trim()
      path = `${path}\u0001${label}`
      if (label === '') return
      let code = level.known.get(path)
      if (code === undefined) {
        code = freeCode(codeFromLabel(label, level.column), level.codes)
        level.codes.add(code)
        level.known.set(path, code)
        level.rows.push({ code, label, ...(i > 0 ? { [made[i - 1]?.column ?? '']: parent } : {}) })
      }
      parent = code
      if (i === made.length - 1) own[level.column] = code
      else Reflect.deleteProperty(own, level.column)
    })
    return own
  })
  const last = levels.at(-1)
  return [
    ...made.map((level, i): ChoiceList => ({
      code: level.code,
      ...(i > 0 ? { columns: [made[i - 1]?.column ?? ''] } : {}),
      rows: level.rows,
    })),
    {
      ...list,
      columns: (list.columns ?? []).filter(c =>
        typeof c === 'string'
          ? c === last || !levels.includes(c)
          : c.code === last || !levels.includes(c.code),
      ),
      rows,
    },
  ]
}

/** How a question would be narrowed by an earlier choice: the column whose cells fit that choice's codes best. */
export interface NarrowingProposal {
  column: string
  rule: string
  matching: number
  of: number
}

/** The columns of a question's list that an earlier choice question could narrow it by, the best first. */
export function narrowingsBy(
  list: ChoiceList,
  parent: { code: string; type: string; codes: readonly string[] },
): NarrowingProposal[] {
  const codes = new Set(parent.codes)
  return columnsOf(list)
    .flatMap(({ code }): NarrowingProposal[] => {
      const values = new Set(list.rows.map(r => String(r[code] ?? '')).filter(Boolean))
      const matching = [...values].filter(v => codes.has(v)).length
      if (matching === 0) return []
      return [
        {
          column: code,
          matching,
          of: values.size,
          rule:
            parent.type === 'choices'
              ? `list contains(${parent.code}, row.${code})`
              : `row.${code} = ${parent.code}`,
        },
      ]
    })
    .sort((a, b) => b.matching / b.of - a.matching / a.of || b.matching - a.matching)
}

/** Groups of options under heads, as pasted region by region: a line that ends with a colon, or stands before indented lines, is a head. */
export function groupedOptions(text: string): { head: string; labels: string[] }[] {
  const groups: { head: string; labels: string[] }[] = []
  const lines = text.split(/\r?\n/).filter(l => l.trim() !== '')
  const indent = (line: string | undefined) =>
    line === undefined ? 0 : line.length - line.trimStart().length
  lines.forEach((line, i) => {
    const isHead = /:\s*$/.test(line) || indent(lines[i + 1]) > indent(line)
    if (isHead) groups.push({ head: line.trim().replace(/\s*:$/, ''), labels: [] })
    else groups.at(-1)?.labels.push(line.trim().replace(/^[•*–-]\s*/, ''))
  })
  return groups.filter(g => g.labels.length > 0)
}

/** The questions of a form that take their choices from a list. */
export function usersOf(form: Form, list: string): string[] {
  return listPlaces(form).flatMap(p =>
    p.kind === 'question' && listsOf(p.node).includes(list) ? [p.code] : [],
  )
}

import { FORMAT_VERSION } from './definition'

type Json = Record<string, unknown>
const isJson = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** By version: what makes a definition of that version one of the next. */
const STEPS: Readonly<Record<number, (definition: Json) => Json>> = {
  1: marksByRole,
}

/**
 * A definition as the newest format has it, from any older one; what is no definition of an older format comes back as it is, for the
 * schema to speak of. Nothing is changed in place.
 */
export function upgradeDefinition(data: unknown): unknown {
  let definition = data
  while (isJson(definition) && definition.tobbin !== FORMAT_VERSION) {
    const step = typeof definition.tobbin === 'number' ? STEPS[definition.tobbin] : undefined
    if (!step) break
    definition = { ...step(definition), tobbin: Number(definition.tobbin) + 1 }
  }
  return definition
}

/** The designers' marks of rows were named after dyes in version 1. */
const ROLES: Readonly<Record<string, string>> = {
  woad: 'note',
  weld: 'check',
  madder: 'problem',
  verdigris: 'done',
}

function marksByRole(definition: Json): Json {
  const { lists } = definition
  return Array.isArray(lists) ? { ...definition, lists: lists.map(listByRole) } : definition
}

function listByRole(list: unknown): unknown {
  if (!isJson(list) || !Array.isArray(list.rows) || !list.rows.some(r => isJson(r) && 'mark' in r))
    return list
  return { ...list, rows: list.rows.map(rowByRole) }
}

function rowByRole(row: unknown): unknown {
  if (!isJson(row) || typeof row.mark !== 'string') return row
  return { ...row, mark: ROLES[row.mark] ?? row.mark }
}

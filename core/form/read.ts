import type { z } from 'zod'
import { nearest } from '../expressions/near'
import { Form } from './definition'
import { LIMITS } from './limits'
import { upgradeDefinition } from './upgrade'
import { listPlaces } from './walk'

/** A problem of shape in a definition: where (`sections[0].items[2].min`; empty for the whole) and what was expected. */
export interface ShapeProblem {
  path: string
  sentence: string
}
export type ReadResult = { form: Form; problems: null } | { form: null; problems: ShapeProblem[] }

/** How many problems are listed at most; the rest are counted. */
export const MOST_PROBLEMS = 100
/** How deep JSON may nest: two levels for every group, and what stands around and inside. */
const DEEPEST_JSON = LIMITS.depth * 2 + 12

/** Reads a definition file's text. Nothing is thrown: what doesn't fit comes back as problems with their paths. */
export function readFormText(text: string): ReadResult {
  if (text.length > LIMITS.definitionBytes)
    return refused(
      '',
      `The file has ${text.length} characters; a definition has at most ${LIMITS.definitionBytes}.`,
    )
  let data: unknown
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    return refused(
      '',
      `This is not JSON: ${error instanceof Error ? error.message.slice(0, 200) : 'it can’t be read'}.`,
    )
  }
  return readForm(data)
}

/** Reads a definition of any version from parsed JSON: a form, or every problem of its shape. Faults of meaning are the prover's. */
export function readForm(source: unknown): ReadResult {
  const deep = tooDeep(source)
  if (deep !== null) return refused(deep, `Nests more than ${LIMITS.depth} groups deep.`)
  const data = upgradeDefinition(source)
  const problems = shapeProblems(data)
  if (!isForm(data, problems)) return { form: null, problems }
  const places = listPlaces(data)
  const questions = places.filter(p => p.kind === 'question').length
  if (questions > LIMITS.questions)
    return refused('sections', `The form has ${questions} questions; at most ${LIMITS.questions} are read.`)
  const nested = places.find(p => p.groups.length > LIMITS.depth)
  if (nested) return refused('sections', `“${nested.code}” stands more than ${LIMITS.depth} groups deep.`)
  return { form: data, problems: null }
}

function shapeProblems(data: unknown): ShapeProblem[] {
  const result = Form.safeParse(data)
  return result.success ? [] : problemsOf(result.error, data)
}

/** The data itself is kept, not Zod's copy of it: the order of keys stays as it was written. */
const isForm = (data: unknown, problems: readonly ShapeProblem[]): data is Form =>
  typeof data === 'object' && problems.length === 0

const refused = (path: string, sentence: string): ReadResult => ({
  form: null,
  problems: [{ path, sentence }],
})

/** The path of the first value that nests too deep, found without recursion so that no input overflows the stack. */
function tooDeep(data: unknown): string | null {
  const open: { value: unknown; depth: number; path: string }[] = [{ value: data, depth: 0, path: '' }]
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, depth, path } = next
    if (typeof value !== 'object' || value === null) continue
    if (depth > DEEPEST_JSON) return path
    for (const [key, inner] of Object.entries(value)) {
      if (typeof inner === 'object' && inner !== null)
        open.push({
          value: inner,
          depth: depth + 1,
          path: depth < 8 ? join(path, Array.isArray(value) ? Number(key) : key) : path,
        })
    }
  }
  return null
}

function join(path: string, key: PropertyKey): string {
  if (typeof key === 'number') return `${path}[${key}]`
  return path ? `${path}.${String(key)}` : String(key)
}
const pathText = (path: readonly PropertyKey[]) => path.reduce<string>(join, '')

/** Zod's issues as problems for people, at most MOST_PROBLEMS. */
export function problemsOf(error: z.ZodError, data: unknown): ShapeProblem[] {
  const all = error.issues.flatMap(issue => issueProblems(issue, data))
  if (all.length <= MOST_PROBLEMS) return all
  return [
    ...all.slice(0, MOST_PROBLEMS),
    { path: '', sentence: `… and ${all.length - MOST_PROBLEMS} more problems.` },
  ]
}

function issueProblems(issue: z.core.$ZodIssue, data: unknown): ShapeProblem[] {
  const path = pathText(issue.path)
  if (issue.code === 'unrecognized_keys')
    return issue.keys
      .slice(0, MOST_PROBLEMS)
      .map(key => ({ path: join(path, key), sentence: `There is no “${key.slice(0, 60)}” here.` }))
  return [{ path, sentence: sentenceOf(issue, valueAt(data, issue.path)) }]
}

const valueAt = (data: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>(
    (value, key) => (typeof value === 'object' && value !== null ? Reflect.get(value, key) : undefined),
    data,
  )

const shown = (value: unknown): string => {
  if (value === undefined) return 'nothing'
  if (Array.isArray(value)) return 'a list'
  return typeof value === 'object' && value !== null ? 'an object' : JSON.stringify(value).slice(0, 60)
}

const list = (values: readonly unknown[]) =>
  values.map(v => (typeof v === 'string' ? `“${v}”` : String(v))).join(', ')
const EXPECTED: Record<string, string> = {
  array: 'a list',
  object: 'an object',
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  record: 'an object',
}

function sentenceOf(issue: z.core.$ZodIssue, value: unknown): string {
  const found = shown(value)
  switch (issue.code) {
    case 'invalid_type':
      return value === undefined
        ? `This is missing; ${EXPECTED[issue.expected] ?? issue.expected} is expected.`
        : `${EXPECTED[issue.expected] ?? issue.expected} is expected, not ${found}.`
    case 'invalid_value':
      return `${list(issue.values)} is expected, not ${found}.`
    case 'invalid_union':
      return unionSentence(issue, value)
    case 'too_big':
      return `This is more than ${String(issue.maximum)}, the most that is read here.`
    case 'too_small':
      return `This is less than ${String(issue.minimum)}, the least that makes sense here.`
    case 'invalid_format':
    case 'custom':
      return `${found}: ${issue.message}.`
    default:
      return `${found} can’t stand here: ${issue.message}.`
  }
}

/** What would have fitted, in a few words. */
function expectedOf(issue: z.core.$ZodIssue): string {
  if (issue.code === 'invalid_type') return EXPECTED[issue.expected] ?? issue.expected
  return issue.code === 'invalid_value' ? list(issue.values) : issue.message
}

function unionSentence(issue: z.core.$ZodIssueInvalidUnion, value: unknown): string {
  if ('options' in issue && Array.isArray(issue.options)) {
    const options = issue.options.map(String)
    const near = typeof value === 'string' ? nearest(value, options) : null
    return `One of ${list(options)} is expected, not ${shown(value)}.${near ? ` Did you mean “${near}”?` : ''}`
  }
  const inner = issue.errors.flat().map(expectedOf)
  return `${[...new Set(inner)].join(' or ')} is expected, not ${shown(value)}.`
}

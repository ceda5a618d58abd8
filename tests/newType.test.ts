import { readFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))
const DEFINITION = 'core/form/questions.ts'

/** Each table by question type: its file, the line that opens it, and the entry that a fathom (a whole number by its nature) needs. */
const TABLES = [
  ['core/form/types.ts', /^export const TYPES: .*\{$/m, "fathom: simple('fathoms', NUMBER),"],
  [
    'core/form/create.ts',
    /^const FRESH: .*\{$/m,
    "fathom: (code, label) => ({ kind: 'question', code, type: 'fathom', label }),",
  ],
  ['core/form/typeHints.ts', /^const TYPE_HINTS: .*\{$/m, "fathom: ['fathoms'],"],
  [
    'core/fill/readers.ts',
    /^const READERS: .*\{$/m,
    "fathom: () => answer => (typeof answer === 'number' ? ok(answer, answer) : wrong('A depth is a number.')),",
  ],
  ['core/fill/describeValue.ts', /^const DESCRIBERS: .*\{$/m, 'fathom: (_, v) => `${String(v)} fm`,'],
  ['core/fill/problems.ts', /^const MISSING: .*\{$/m, 'fathom: NEEDED,'],
  ['core/fill/plausible.ts', /^const MAKERS: .*\{$/m, 'fathom: () => 3,'],
  [
    'core/prove/model/domains.ts',
    /^const DOMAINS: .*\{$/m,
    'fathom: q => numberDomain(q, undefined, undefined, 0),',
  ],
  ['app/components/answer/widgets/index.ts', /^const WIDGETS: .*\{$/m, 'fathom: () => field(WidgetNumber),'],
  ['app/components/write/typeFields.ts', /^export const TYPE_FIELDS: .*\{$/m, 'fathom: [],'],
] as const

function inserted(text: string, after: RegExp, line: string): string {
  const opening = after.exec(text)?.[0]
  if (opening === undefined) throw new Error(`The table that begins ${String(after)} is gone.`)
  return text.replace(opening, () => `${opening}\n  ${line}`)
}

/** The definition with one type more: its schema, its entry in the list, its place in the union. */
function definitionWithFathoms(text: string): string {
  const schema = "export const FathomQuestion = z.strictObject({ ...asked, type: z.literal('fathom') })\n"
  const withEntry = inserted(text, /^export const QUESTIONS = \{$/m, 'fathom: FathomQuestion,')
  const inUnion = inserted(
    withEntry,
    /^export const Question = z\.discriminatedUnion\('type', \[$/m,
    'FathomQuestion,',
  )
  return inUnion.replace('/** Question types by name', () => `${schema}/** Question types by name`)
}

const OPTIONS: ts.CompilerOptions = {
  target: ts.ScriptTarget.ES2023,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  strict: true,
  noUncheckedIndexedAccess: true,
  skipLibCheck: true,
  noEmit: true,
  types: [],
  paths: { '#core/*': [join(ROOT, 'core/*')] },
}
const WIDGET =
  "declare module '*.vue' { import type { Component } from 'vue'; const c: Component; export default c }"

/** Compiles the tables and all that they import, some files replaced, and gives the files with errors and what is said of them. */
function errorsWith(replaced: ReadonlyMap<string, string>): Map<string, string[]> {
  const widgets = join(ROOT, 'widget.d.ts')
  const host = ts.createCompilerHost(OPTIONS)
  const usual = { getSourceFile: host.getSourceFile.bind(host), fileExists: host.fileExists.bind(host) }
  host.fileExists = name => name === widgets || usual.fileExists(name)
  host.getSourceFile = (name, version, ...more) => {
    const text = name === widgets ? WIDGET : replaced.get(relative(ROOT, name))
    return text === undefined
      ? usual.getSourceFile(name, version, ...more)
      : ts.createSourceFile(name, text, version)
  }
  const files = [...TABLES.map(([file]) => join(ROOT, file)), join(ROOT, 'core/prove/prove.ts'), widgets]
  const errors = new Map<string, string[]>()
  for (const { file, messageText } of ts.getPreEmitDiagnostics(ts.createProgram(files, OPTIONS, host))) {
    const at = file ? relative(ROOT, file.fileName) : ''
    errors.set(at, [...(errors.get(at) ?? []), ts.flattenDiagnosticMessageText(messageText, '\n')])
  }
  return errors
}

const read = (file: string) => readFileSync(join(ROOT, file), 'utf8')

describe('a question type that is added', () => {
  const definition = definitionWithFathoms(read(DEFINITION))

  it('is missed by the compiler in every table, and in nothing else', { timeout: 120_000 }, () => {
    const errors = errorsWith(new Map([[DEFINITION, definition]]))
    expect([...errors.keys()].sort()).toEqual(TABLES.map(([file]) => file).sort())
    expect([...errors.values()].flat().filter(message => !message.includes('fathom'))).toEqual([])
  })

  it('needs its entry in each table, and nothing else', { timeout: 120_000 }, () => {
    const tables = TABLES.map(
      ([file, opening, entry]) => [file, inserted(read(file), opening, entry)] as const,
    )
    expect(errorsWith(new Map([[DEFINITION, definition], ...tables]))).toEqual(new Map())
  })
})

import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'

const CORE = dirname(fileURLToPath(import.meta.url))
/** The rooms of the core, each of which may import from those before it and from itself. `docs/architecture.md` says what each holds. */
const ROOMS = [
  'expressions',
  'form',
  'form/templates',
  'map',
  'lists',
  'fill',
  'parties',
  'documents',
  'documents/docx',
  'formats',
  'summary',
  'prove/solver',
  'prove/model',
  'prove/encode',
  'prove/goals',
  'prove/checks',
  'prove/effects',
  'prove',
  'paper',
]

/** What the rooms of the prover share, below them all: the shapes of what it says. */
const LEAVES = ['prove/finding.ts', 'prove/acceptance.ts']

const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' })
  .filter(f => f.endsWith('.ts') && !f.endsWith('.test.ts'))
  .map(f => join(CORE, f))
/** What a file imports from the core, types too. */
function importsOf(file: string): string[] {
  const text = readFileSync(file, 'utf8')
  const named = [...text.matchAll(/\bfrom '(\.[^']*)'/g)].map(([, path]) =>
    resolve(dirname(file), path ?? ''),
  )
  return named.map(path => [`${path}.ts`, join(path, 'index.ts')].find(p => files.includes(p)) ?? path)
}
const imports = new Map(files.map(f => [f, importsOf(f)] as const))
const nameOf = (file: string) => relative(CORE, file).split(sep).join('/')
function roomOf(file: string): number {
  if (LEAVES.includes(nameOf(file))) return ROOMS.indexOf('parties')
  return ROOMS.indexOf(dirname(nameOf(file)))
}

/** The circle that leads from a file back to it; null when there is none. */
function circleFrom(file: string, path: readonly string[], done: Set<string>): string[] | null {
  if (path.includes(file)) return [...path.slice(path.indexOf(file)), file].map(nameOf)
  if (done.has(file)) return null
  for (const next of imports.get(file) ?? []) {
    const circle = circleFrom(next, [...path, file], done)
    if (circle) return circle
  }
  done.add(file)
  return null
}

describe('the house', () => {
  it('has rooms with arrows one way', () => {
    expect(files.length).toBeGreaterThan(100)
    expect(files.filter(f => roomOf(f) < 0).map(nameOf)).toEqual([])
    const against = files.flatMap(f =>
      importsOf(f)
        .filter(to => roomOf(to) < 0 || roomOf(to) > roomOf(f))
        .map(to => `${nameOf(f)} → ${nameOf(to)}`),
    )
    expect(against).toEqual([])
  })

  it('has no circles of files, types included', () => {
    const done = new Set<string>()
    expect(files.flatMap(f => circleFrom(f, [], done) ?? [])).toEqual([])
  })
})

import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, it } from 'vitest'
import { ICONS } from './icons'

const COMPONENTS = 'node_modules/vuetify/lib'
/** Keys stand as words, and tables are not grouped. */
const NOT_ASKED = new Set([
  ...['command', 'ctrl', 'shift', 'alt', 'enter', 'space', 'backspace'],
  ...['arrowup', 'arrowdown', 'arrowleft', 'arrowright', 'loading', 'edit', 'tableGroupExpand'],
  'tableGroupCollapse',
])

const filesIn = (folder: string, ending: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter(f => f.endsWith(ending))
    .map(f => join(folder, f))

/** The files of the components that stand in our templates, and of those that they bring along. */
function filesInUse(): Set<string> {
  const tags = filesIn('app', '.vue').flatMap(f => readFileSync(f, 'utf8').match(/<v-[a-z-]+/g) ?? [])
  const names = new Set(
    tags.map(t => t.slice(1).replaceAll(/(?:^|-)([a-z])/g, (_, c: string) => c.toUpperCase())),
  )
  const modules = [
    ...filesIn(join(COMPONENTS, 'components'), '.js'),
    ...filesIn(join(COMPONENTS, 'labs'), '.js'),
  ]
  const waiting = modules.filter(f => names.has(f.split('/').at(-1)?.replace('.js', '') ?? ''))
  const seen = new Set<string>()
  for (const file of waiting) {
    if (seen.has(file)) continue
    seen.add(file)
    const brought = readFileSync(file, 'utf8').matchAll(
      /from "(\.[^"]+\/V[A-Za-z]+\.js|\.[^"]+\/V[A-Z][A-Za-z]+\/index\.js)"/g,
    )
    for (const [, to] of brought) {
      const found = join(dirname(file), to ?? '')
      waiting.push(
        ...(found.endsWith('index.js')
          ? [found.replace('index.js', `${found.split('/').at(-2)}.js`)]
          : [found]),
      )
    }
  }
  return seen
}

it('has every icon that the components in use ask for by name', () => {
  const files = filesInUse()
  const asked = new Set(
    [...files].flatMap(f =>
      [...readFileSync(f, 'utf8').matchAll(/['"]\$([a-z][a-zA-Z]+)['"]/g)].map(m => m[1] ?? ''),
    ),
  )
  const missing = [...asked].filter(name => !(name in ICONS) && !NOT_ASKED.has(name))
  expect(missing).toEqual([])
  expect(files.size).toBeGreaterThan(40)
})

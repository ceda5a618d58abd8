import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, it, vi } from 'vitest'
import { readFormText } from '../core/form/read'
import { diffCommand } from './diff'
import { DiffOutput } from './output'

const DEMO = 'demo/forms/haul_out.form.json'
const written = (stream: 'stdout' | 'stderr') =>
  vi.spyOn(process[stream], 'write').mockImplementation(() => true)
const textOf = (spy: ReturnType<typeof written>) => spy.mock.calls.map(c => String(c[0])).join('')
const file = (text: string) => {
  const path = join(mkdtempSync(join(tmpdir(), 'tobbin-cli-')), 'x.form.json')
  writeFileSync(path, text)
  return path
}

afterEach(() => vi.restoreAllMocks())

it('tobbin diff tells what one file changes against another; 0 the same, 1 not, 2 can’t be read', () => {
  const [out, err] = [written('stdout'), written('stderr')]
  expect(diffCommand([DEMO, DEMO], '')).toBe(0)
  expect(textOf(out)).toBe('')
  const { form } = readFormText(readFileSync(DEMO, 'utf8'))
  if (!form) throw new Error('The demo form can’t be read.')
  const [owner, boat, ...rest] = form.sections
  if (!owner || !boat) throw new Error('The demo form lost its sections.')
  const items = boat.items
    .filter(i => i.code !== 'tons')
    .map(i => (i.code === 'keel_off' ? { ...i, label: 'Was the keel off?' } : i))
  const changed = file(JSON.stringify({ ...form, sections: [{ ...boat, items }, owner, ...rest] }))
  expect(diffCommand([DEMO, changed], '')).toBe(1)
  expect(textOf(out)).toContain('deleted   2.7 ')
  expect(textOf(out)).toContain('→ Was the keel off?')
  out.mockClear()
  expect(diffCommand([DEMO, changed, '--json'], '')).toBe(1)
  const { changes } = DiffOutput.parse(JSON.parse(textOf(out)))
  expect(changes.map(c => c.act).toSorted()).toEqual(['changed', 'deleted', 'moved'])
  expect(diffCommand([DEMO, 'no/such/file.json'], '')).toBe(2)
  expect(diffCommand([DEMO], 'the usage')).toBe(2)
  expect(textOf(err)).toContain('no/such/file.json: the whole: It can')
  expect(textOf(err)).toContain('the usage')
})

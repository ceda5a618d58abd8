import { readFileSync } from 'node:fs'
import { afterEach, expect, it, vi } from 'vitest'
import { readFormText } from '../core/form/read'
import { diffCommand } from './diff'
import { DiffOutput } from './output'
import { fileWith, textOf, written } from './testFiles'

const DEMO = 'demo/forms/haul_out.form.json'

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
  const changed = fileWith(JSON.stringify({ ...form, sections: [{ ...boat, items }, owner, ...rest] }))
  expect(diffCommand([DEMO, changed], '')).toBe(1)
  expect(textOf(out)).toContain('deleted   2.7 ')
  expect(textOf(out)).toContain('→ Was the keel off?')
  out.mockClear()
  expect(diffCommand([DEMO, changed, '--json'], '')).toBe(1)
  const { changes, effects, same } = DiffOutput.parse(JSON.parse(textOf(out)))
  expect(changes.map(c => c.act).toSorted()).toEqual(['changed', 'deleted', 'moved'])
  const gone = effects.find(e => e.code === 'tons' && e.kind === 'asked')
  expect(gone).toMatchObject({ outcome: 'differs', was: true, is: false })
  expect(same).toBeGreaterThan(50)
  expect(diffCommand([DEMO, 'no/such/file.json'], '')).toBe(2)
  expect(diffCommand([DEMO], 'the usage')).toBe(2)
  expect(textOf(err)).toContain('no/such/file.json: the whole: It can')
  expect(textOf(err)).toContain('the usage')
})

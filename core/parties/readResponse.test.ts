import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import { readFormText } from '../form/read'
import { readResponse } from './readResponse'

const { form } = readFormText(readFileSync('demo/forms/haul_out.form.json', 'utf8'))
if (!form) throw new Error('The demo form can’t be read.')
const filled = fill(planOf(form), { berth_holder: false, insured: false, hull: 'steel' }, '2026-11-24')

it('tells what was not reached from what was left blank, and by which rule something was not asked', () => {
  const lines = new Map(readResponse(filled, [form.turns![0]!.code]).map(l => [l.code, l]))
  expect(lines.get('boat_name')).toMatchObject({ state: 'blank', isAhead: false })
  expect(lines.get('lift_agreed')).toMatchObject({ isAhead: true, why: '' })
  expect(lines.get('insurer')).toMatchObject({
    ...{ state: 'unasked', isAhead: false },
    why: 'Shown when Is the boat insured against third parties? is Yes',
  })
  const all = readResponse(
    filled,
    form.turns!.map(t => t.code),
  )
  expect(all.filter(l => l.isAhead)).toEqual([])
  expect(all.filter(l => l.state === 'unasked' && l.why === '' && !l.path.includes('['))).toEqual([])
})

import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { readFormText } from '../form/read'
import { layOutPaper } from './paperForm'

const { form } = readFormText(readFileSync('demo/forms/haul_out.form.json', 'utf8'))
if (!form) throw new Error('The demo form can’t be read.')
const paper = layOutPaper(form)
const lines = paper.flatMap(part => part.lines)
const lineOf = (number: string) => lines.find(l => l.number === number)

it('tells by each answer where to go on, and in words what is asked of whom', () => {
  expect(lineOf('1.2')?.blank).toEqual({
    ...{ kind: 'boxes', hint: '' },
    boxes: [
      { label: 'Yes', goOn: '' },
      { label: 'No', goOn: 'go to 1.4' },
    ],
  })
  expect(lineOf('1.3')?.when).toBe('“Do you hold a berth at Wherry Reach?” (1.2) is Yes')
  expect(lineOf('2.7')).toMatchObject({
    isRequired: false,
    requiredWhen: '“Length over all” (2.5) is more than 12',
  })
  expect(paper[2]?.goOn).toEqual([
    'If “What brings her out of the water?” (3.1) is Survey only, go to part 5.',
  ])
  expect(paper.at(-1)).toMatchObject({
    by: ['Surveyor'],
    when: '“Must the surveyor look at her first?” (7.3) is Yes',
  })
})

it('what repeats stands there several times; what nobody answers does not stand there', () => {
  expect(lines.filter(l => l.number === '2.11').map(l => l.label)).toEqual([
    'Engines, no. 1',
    'Engines, no. 2',
  ])
  expect(new Set(lines.map(l => l.key)).size).toBe(lines.length)
  expect(lines.map(l => l.label).join(' ')).not.toMatch(/\{\{/)
})

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import writeXlsx from 'write-excel-file/node'
import type { ListsAnswer, ListsQuestion } from './lists.worker'

let ask: (question: ListsQuestion) => Promise<ListsAnswer>
beforeEach(async () => {
  let hear: (event: { data: ListsQuestion }) => void = () => undefined
  let told: (answer: ListsAnswer) => void = () => undefined
  vi.stubGlobal('addEventListener', (_: string, listener: typeof hear) => (hear = listener))
  vi.stubGlobal('postMessage', (answer: ListsAnswer) => {
    if (answer.is !== 'progress') told(answer)
  })
  ask = data =>
    new Promise(done => {
      told = done
      hear({ data })
    })
  vi.resetModules()
  await import('./lists.worker')
})
afterEach(() => vi.unstubAllGlobals())

const CSV = 'code;label;depth\n007;Åland quay;2,5\nb;Tern Quay;3\n'
/** A text as an older spreadsheet writes it: one byte a letter. */
const asWindows1252 = (text: string) => Uint8Array.from(text, c => c.charCodeAt(0))
const read = (part: BlobPart, name = 'quays.csv') =>
  ask({ ask: 'read', file: new File([part], name), known: { depth: 'number' } })

describe('the worker that reads and checks lists', () => {
  it('reads a table in either encoding: heads, lines, roles, leading zeros', async () => {
    for (const part of [CSV, `\uFEFF${CSV}`, asWindows1252(CSV)]) {
      const answer = await read(part)
      if (answer.is !== 'read') throw new Error(JSON.stringify(answer))
      const { heads, lines, count, roles } = answer.preview
      expect([heads, count, lines[0]]).toEqual([['code', 'label', 'depth'], 2, ['007', 'Åland quay', '2,5']])
      expect(roles).toEqual(['code', 'label', { column: 'depth' }])
    }
  })

  it('tells heads from rows, and takes the first line for the other when told so', async () => {
    const headed = ['Depot;Bays\nWeir;4\nQuay;12\n', 'name;coast\nWeir;north\nQuay;north\n']
    const bare = ['north;Weir depot\nsouth;Quay depot\n', 'Weir depot;4\nQuay depot;12\n']
    for (const text of [...headed, ...bare]) {
      const answer = await read(text)
      if (answer.is !== 'read') throw new Error(JSON.stringify(answer))
      expect([text, answer.preview.isHeaded, answer.preview.count]).toEqual([text, headed.includes(text), 2])
    }
    await read(bare[0] ?? '')
    const told = await ask({ ask: 'head', isHeaded: true, known: {} })
    expect(told).toMatchObject({ preview: { heads: ['north', 'Weir depot'], count: 1, isHeaded: true } })
    const back = await ask({ ask: 'head', isHeaded: false, known: {} })
    // No head says it: a first column of codes is the code, and what is read the label.
    expect(back).toMatchObject({ preview: { count: 2, roles: ['code', 'label'] } })
  })

  it('takes numbers of a workbook as a sheet shows them', async () => {
    const lines = [
      ['name', 'depth', 'share'],
      ['Weir', 0.1 + 0.2, 1 / 3],
    ]
    const book = await writeXlsx(lines.map(line => line.map(value => ({ value })))).toBuffer()
    const answer = await read(new Uint8Array(book), 'depths.xlsx')
    expect(answer).toMatchObject({ preview: { lines: [['Weir', '0.3', '0.333333333333333']] } })
  })
})

describe('the worker that reads and checks lists', () => {
  it('tells what taking the table in would change', async () => {
    await read(CSV)
    const answer = await ask({
      ask: 'compare',
      roles: ['code', 'label', { column: 'depth' }],
      kinds: { depth: 'number' },
      before: [
        { code: 'b', label: 'Tern Quay', depth: 2 },
        { code: 'z', label: 'Gone' },
      ],
      missing: 'retire',
    })
    if (answer.is !== 'compared') throw new Error(JSON.stringify(answer))
    expect(answer.comparison.counts).toEqual({ added: 1, changed: 1, missing: 1, clashing: 0, same: 0 })
    const retired = answer.comparison.rows.filter(r => r.retired).map(r => r.code)
    expect(retired).toEqual(['z'])
  })

  it('says so when a file can’t be read, and still answers the next', async () => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const answer = await read('no workbook', 'quays.xlsx')
    expect(answer).toMatchObject({ is: 'failed', sentence: expect.stringContaining('can’t be read') })
    expect(logged).toHaveBeenCalledOnce()
    const rows = [
      { code: 'a', label: 'A' },
      { code: 'a', label: 'B' },
    ]
    const checked = await ask({ ask: 'check', asked: 7, lists: [{ code: 'l', rows }] })
    if (checked.is !== 'checked') throw new Error(JSON.stringify(checked))
    expect([checked.asked, checked.problems.length > 0]).toEqual([7, true])
  })
})

import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { formOf, question, refusalOf } from '../testing/testStore'
import { endThreads, runTask, useThreads } from './run'

let folder = ''
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'tobbin-threads-'))
})
afterAll(async () => {
  await endThreads()
  await rm(folder, { recursive: true, force: true })
})

/** A thread that never ends when it is to read a definition that says so, and answers at once otherwise. */
const WORKER = `
export default ({ name, input }) => {
  for (;;) if (input !== 'forever') return { form: null, problems: [], name }
}`

it('a task over its limit is stopped, whoever asked is told, and the next one has a thread', async () => {
  const file = join(folder, 'worker.mjs')
  await writeFile(file, WORKER)
  const form = formOf([question('q')])
  const within = {
    proveRelease: 60_000,
    editForm: 60_000,
    placeProposal: 60_000,
    weighResponses: 60_000,
    readCells: 60_000,
    weighRows: 60_000,
    makePdf: 60_000,
    readTemplate: 30_000,
    fillTemplate: 30_000,
    readContent: 60_000,
    sealDocument: 60_000,
    renameTags: 60_000,
    setPdf: 30_000,
    readBody: 60_000,
  }
  useThreads(file, { ...within, readDefinition: 300 })
  const stopped = runTask('readDefinition', 'forever')
  const waiting = runTask('editForm', { form, edits: [] })
  expect(await refusalOf(stopped)).toMatchObject({ status: 503, code: 'too-long' })
  expect(await waiting).toMatchObject({ name: 'editForm' })
  expect(await runTask('readDefinition', {})).toMatchObject({ name: 'readDefinition' })
})

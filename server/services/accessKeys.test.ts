import { text } from 'node:stream/consumers'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ApiQuery, KEY_RIGHTS, type NewAccessKey } from '../../shared/api/accessKeys'
import { describeApi } from '../../shared/api/openApi'
import { PROGRAM_ENDPOINTS } from '../../shared/api/outsideEndpoints'
import { ResponseFilter } from '../../shared/api/responses'
import {
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  type TestStore,
} from '../testing/testStore'
import { listAccessKeys, makeAccessKey, removeAccessKey, useAccessKey } from './accessKeys'
import { saveEdits } from './drafts'
import { readLive } from './liveTable'
import { listForPrograms, loadForPrograms, sendForPrograms } from './programs'
import { releaseForm } from './releases'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const FORM = formOf([question('boat', { required: true }), question('tons', { type: 'integer' })])

async function begun(made: NewAccessKey) {
  const { db, designer } = store
  const { id } = await releaseNew(store, FORM)
  const send = (answers: Record<string, string | number>, version = 1, key = fresh('sent-by-a-program')) =>
    sendForPrograms(db, id, { key, version, answers })
  await send({ boat: '=Teasel', tons: 12 })
  await send({ boat: 'Dunlin', tons: 3 })
  const { id: keyId, secret } = await makeAccessKey(db, id, designer.id, made)
  return { id, keyId, secret, send }
}
const live = (where = ''): NewAccessKey => ({
  ...{ kind: 'live', name: 'Season sheet' },
  filter: ResponseFilter.parse({ where }),
})

describe('a live address', () => {
  it('has the responses of its filter as they are now; new columns come at the end, and those that go stay empty', async () => {
    const { db, designer } = store
    const { id, secret, send } = await begun(live('tons > 5'))
    const csv = async () =>
      Papa.parse<string[]>((await text((await readLive(db, `${secret}.csv`)).content)).trim()).data
    expect((await csv()).map(row => row.slice(6))).toEqual([
      ['boat', 'tons'],
      ["'=Teasel", '12'],
    ])
    await saveEdits(db, id, designer.id, 0, [
      { do: 'insert', into: 'section/s', at: 0, node: question('harbour') },
      { do: 'remove', what: 'item/boat' },
    ])
    await releaseForm(db, id, designer, { revision: 1 })
    await send({ harbour: 'Tern Quay', tons: 8 }, 2)
    expect((await csv()).map(row => row.slice(6))).toEqual([
      ['boat', 'tons', 'harbour'],
      ['', '12', ''],
      ['', '8', 'Tern Quay'],
    ])
    const rows = JSON.parse(await text((await readLive(db, `${secret}.json`)).content)) as object[]
    expect(rows).toMatchObject([{ tons: 12 }, { harbour: 'Tern Quay', tons: 8 }])
    expect(await listAccessKeys(db, id)).toMatchObject([{ name: 'Season sheet', uses: 3 }])
  })

  it('opens nothing once it is revoked, nor for another purpose', async () => {
    const { db } = store
    const { id, keyId, secret } = await begun(live())
    for (const right of KEY_RIGHTS)
      expect(await refusalOf(useAccessKey(db, secret, right))).toMatchObject({ status: 401 })
    await removeAccessKey(db, id, keyId)
    expect(await refusalOf(readLive(db, `${secret}.csv`))).toMatchObject({ status: 401 })
  })
})

describe('programs', () => {
  it('read what a key of theirs allows, page by page, and send responses that are stored once and decided by the rules', async () => {
    const { db } = store
    const { id, secret, send } = await begun({ kind: 'api', name: 'Works desk', rights: ['read'] })
    expect(await useAccessKey(db, secret, 'read')).toMatchObject({ formId: id })
    expect(await refusalOf(useAccessKey(db, secret, 'send'))).toMatchObject({ status: 403 })
    const page = await listForPrograms(db, id, ApiQuery.parse({ size: 1, after: 1 }))
    expect(page).toMatchObject({
      count: 1,
      responses: [{ number: 2, version: 1, answers: { boat: 'Dunlin' } }],
    })
    expect(await loadForPrograms(db, id, 1)).toMatchObject({ state: 'done' })
    const first = await send({ boat: 'Ruddock' }, 1, 'the-same-key')
    expect(await send({ boat: 'Ruddock' }, 1, 'the-same-key')).toEqual(first)
    expect(await refusalOf(send({ tons: 4 }))).toMatchObject({ status: 422, paths: ['boat'] })
  })

  it('have every request of theirs described by OpenAPI, with its parameters', () => {
    const { openapi, paths } = describeApi() as {
      openapi: string
      paths: Record<string, Record<string, { parameters: { name: string }[] }>>
    }
    expect(openapi).toBe('3.1.0')
    for (const { path, method, ...rest } of Object.values(PROGRAM_ENDPOINTS)) {
      const described = paths[path.replace(':number', '{number}')]?.[method.toLowerCase()]
      const query = 'query' in rest ? Object.keys(rest.query.shape) : []
      const params = 'params' in rest ? Object.keys(rest.params.shape) : []
      expect(described?.parameters.map(p => p.name)).toEqual([...params, ...query])
    }
  })
})

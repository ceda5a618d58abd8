import { text } from 'node:stream/consumers'
import { Ajv2020 } from 'ajv/dist/2020.js'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { z } from 'zod'
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
import { loadOutsideWorld } from '../stand-ins/receiver'
import { signatureOf } from './deliveries/hook'
import { listHooksOfKey, makeHook } from './deliveries/programHooks'
import { runDeliveries } from './deliveries/run'
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

/** The part of an OpenAPI document that says what comes back. */
const OperationsOfApi = z.object({
  paths: z.record(
    z.string(),
    z.record(
      z.string(),
      z.object({
        responses: z.object({
          200: z.object({
            content: z.object({
              'application/json': z.object({ schema: z.record(z.string(), z.unknown()) }),
            }),
          }),
        }),
      }),
    ),
  ),
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

  it('are told of what happens to responses until their key is revoked', async () => {
    const { db } = store
    const { id, keyId, secret, send } = await begun({ kind: 'api', name: 'Works desk', rights: ['read'] })
    const key = await useAccessKey(db, secret, 'read')
    const address = `https://${fresh('desk').replaceAll('_', '-')}.example/hooks`
    const made = await makeHook(db, key, { on: 'done', address })
    expect(await listHooksOfKey(db, key)).toEqual([{ id: made.id, on: 'done', address }])
    const received = async () => (await loadOutsideWorld(db)).received.filter(r => r.address === address)
    await send({ boat: 'Ruddock' })
    await runDeliveries(db)
    const [got, ...others] = await received()
    expect(others).toEqual([])
    expect(JSON.parse(got?.body ?? '')).toMatchObject({ number: 3, answers: { boat: 'Ruddock' } })
    expect(got?.signature).toBe(signatureOf(made.secret, got?.body ?? ''))
    await send({ boat: 'Late' })
    await removeAccessKey(db, id, keyId)
    await send({ boat: 'Later' })
    await runDeliveries(db)
    expect(await received()).toHaveLength(1)
  })
})

describe('the interface for programs', () => {
  it('gives answers that are as the OpenAPI document says, and nothing else is', async () => {
    const { db } = store
    const { id, secret, send } = await begun({ kind: 'api', name: 'Works desk', rights: ['read'] })
    const key = await useAccessKey(db, secret, 'read')
    const hook = { on: 'sent', address: 'https://desk.example/' } as const
    const answers = {
      'get /api/v1/responses': await listForPrograms(db, id, ApiQuery.parse({})),
      'get /api/v1/responses/{number}': await loadForPrograms(db, id, 1),
      'post /api/v1/responses': await send({ boat: 'Ruddock' }),
      'post /api/v1/hooks': await makeHook(db, key, hook),
      'get /api/v1/hooks': { hooks: await listHooksOfKey(db, key) },
      'delete /api/v1/hooks/{hook}': { done: true },
    }
    const described = OperationsOfApi.parse(describeApi()).paths
    const operations = Object.entries(described).flatMap(([path, methods]) =>
      Object.keys(methods).map(method => `${method} ${path}`),
    )
    expect(operations.sort()).toEqual(Object.keys(answers).sort())
    for (const [operation, answer] of Object.entries(answers)) {
      const [method = '', path = ''] = operation.split(' ')
      const schema = described[path]?.[method]?.responses['200'].content['application/json'].schema
      const isAnswer = new Ajv2020({ strict: false, validateFormats: false }).compile(schema ?? false)
      expect([operation, isAnswer(JSON.parse(JSON.stringify(answer))), isAnswer.errors]).toEqual([
        ...[operation, true, null],
      ])
      expect(isAnswer({ some: 'thing else' })).toBe(false)
    }
  })

  it('has every request described by OpenAPI, with its parameters', () => {
    const { openapi, paths } = describeApi() as {
      openapi: string
      paths: Record<string, Record<string, { parameters: { name: string }[] }>>
    }
    expect(openapi).toBe('3.1.0')
    for (const { path, method, ...rest } of Object.values(PROGRAM_ENDPOINTS)) {
      const described = paths[path.replaceAll(/:(\w+)/g, '{$1}')]?.[method.toLowerCase()]
      const query = 'query' in rest ? Object.keys(rest.query.shape) : []
      const params = 'params' in rest ? Object.keys(rest.params.shape) : []
      expect(described?.parameters.map(p => p.name)).toEqual([...params, ...query])
    }
  })
})

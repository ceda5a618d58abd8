import { readdirSync } from 'node:fs'
import { join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { API } from '../../shared/api/endpoints'
import { ACCESS, findRoute } from './access'

const FOLDER = fileURLToPath(new URL('../api', import.meta.url))

/** What a file of a route answers: `GET /api/forms/:id` for `forms/[id]/index.get.ts`. */
function routeOf(file: string): string {
  const [, path = '', method = ''] = /^(.*)\.(get|post|put|delete)\.ts$/.exec(file) ?? []
  const address = `/api/${path}`.replace(/\/index$/, '').replace(/\[(\w+)\]/g, ':$1')
  return `${method.toUpperCase()} ${address}`
}

describe('the table of routes', () => {
  it('has every route that there is, and no other', () => {
    const files = readdirSync(FOLDER, { recursive: true, withFileTypes: true }).filter(f => f.isFile())
    const served = files.map(f => routeOf(relative(FOLDER, join(f.parentPath, f.name))))
    const listed = Object.values(API).map(({ method, path }) => `${method} ${path}`)
    expect(served.toSorted()).toEqual(listed.toSorted())
  })

  it('finds each route by its address, and nothing by another', () => {
    const segment = fc.stringMatching(/^[\w.%-]{1,12}$/)
    fc.assert(
      fc.property(fc.constantFrom(...Object.entries(API)), segment, (route, value) => {
        const [name, { method, path }] = route
        const address = path.replace(/:\w+/g, value)
        expect(findRoute(method, address)?.access).toEqual(Reflect.get(ACCESS, name))
        for (const other of [
          `${address}/`,
          `${address}/x/y/z/w`,
          `/${address}`,
          address.toUpperCase(),
          `/x${address}`,
        ])
          expect(findRoute(method, other)).toBeNull()
        expect(findRoute('PATCH', address)).toBeNull()
      }),
    )
  })
})

import { z } from 'zod'
import { seededRandom } from '../../core/fill/draw'
import { API, type Endpoint } from '../../shared/api/endpoints'

/** What many mutated requests were answered with. */
export interface Fuzzed {
  /** How many there were of each status. */
  statuses: Record<number, number>
  /** The requests that the server failed at, or did not answer. */
  faults: string[]
}

interface Schema {
  type?: string
  enum?: unknown[]
  const?: unknown
  anyOf?: Schema[]
  oneOf?: Schema[]
  allOf?: Schema[]
  $ref?: string
  properties?: Record<string, Schema>
  required?: string[]
  items?: Schema
  prefixItems?: Schema[]
  minimum?: number
  maximum?: number
  pattern?: string
  format?: string
}

/** What shuts people out of what the others are about. */
const SELDOM: ReadonlySet<string> = new Set([
  'signOut',
  'endSession',
  'changePerson',
  'choosePassword',
  'changePassword',
  'handOverForms',
  'shareForm',
  'deleteForm',
])
const DEEPEST = 6
const FAR_DOWN = 400
/** What servers stumble over. */
const NASTY: readonly unknown[] = [
  '',
  '\u0000',
  'a\u0000b',
  '\ud800',
  '\udfffx',
  '\u202e',
  "'; drop table forms; --",
  '<script>alert(1)</script>',
  '../../etc/passwd',
  '%00',
  '__proto__',
  'constructor',
  'x'.repeat(5_000),
  null,
  true,
  -1,
  0.5,
  1e308,
  2 ** 53,
  2 ** 31,
  -(2 ** 63),
  [],
  {},
  { __proto__: 1, toString: 'x' },
  Array.from({ length: 200 }, (_, i) => i),
  '0000-00-00',
  '9999-12-31',
  '2026-02-30',
]

/** Makes requests of all routes: some as they should be, some mutated. The same seed makes the same ones, but for what it has learnt of the server. */
export class Requests {
  private readonly random: () => number
  private readonly names = Object.keys(API)
  private readonly schemas = new Map<string, Schema>()
  /** Ids, codes and links that the server has told, by what they are of (`forms`, `answer` …). */
  private readonly known = new Map<string, Set<string>>([['answer', new Set(['demo_haul_out'])]])

  constructor(seed: number) {
    this.random = seededRandom(seed)
  }

  /** Remembers what an answer tells: used for requests of the same kind, and now and then for others. */
  learn(path: string, text: string) {
    const kind = kindOf(path)
    const ids = this.known.get(kind) ?? new Set()
    this.known.set(kind, ids)
    for (const [, key, id] of text.slice(0, 20_000).matchAll(ID))
      if (id && ids.size < MOST_KNOWN) (key === 'token' ? this.links : ids).add(id)
  }
  private get links(): Set<string> {
    return this.known.get('answer') ?? new Set()
  }

  private idOf(kind: string): string {
    const ids = this.random() < 0.9 ? this.known.get(kind) : this.known.get(this.pick([...this.known.keys()]))
    return ids && ids.size > 0 ? this.pick([...ids]) : '00000000-0000-4000-8000-000000000000'
  }

  pick<T>(from: readonly T[]): T {
    const picked = from[Math.floor(this.random() * from.length)]
    if (picked === undefined && from.length === 0) throw new Error('There is nothing to pick from.')
    return picked as T
  }

  next(): { method: string; path: string; body: string | undefined; type: string } {
    let name = this.pick(this.names)
    if (SELDOM.has(name) && this.random() < 0.9) name = this.pick(this.names)
    const endpoint: Endpoint = { ...API[name as keyof typeof API] }
    const path = endpoint.path.replace(/:\w+/g, () => this.parameter(kindOf(endpoint.path)))
    const query = this.random() < 0.3 ? `?${this.queryText()}` : ''
    return {
      method: this.random() < 0.97 ? endpoint.method : this.pick(['PUT', 'PATCH', 'DELETE', 'OPTIONS']),
      path: path + query,
      body: endpoint.method === 'GET' ? undefined : this.bodyOf(name, endpoint),
      type: this.random() < 0.95 ? 'application/json' : this.pick(['text/plain', 'multipart/form-data', '']),
    }
  }

  private parameter(kind: string): string {
    if (this.random() < 0.8) return encodeURIComponent(this.idOf(kind))
    return this.pick(['%00', '%zz', '%ff', '..%2f..', '1e9', '-1', '99999999999', 'x'.repeat(2_000), 'null'])
  }

  private queryText(): string {
    const name = this.pick(['page', 'q', 'sort', 'of', 'before', 'view', 'search', 'turn', '__proto__'])
    return `${name}=${this.pick(['%00', '-1', '1e99', '%ed%a0%80', 'a', '[object]', '9'.repeat(30), ''])}`
  }

  private bodyOf(name: string, endpoint: Endpoint): string | undefined {
    if (this.random() < 0.02) return this.pick(['{', '[[[', '\u0000', 'null', '"x"', '{"a":1e999}'])
    if (this.random() < 0.01) return '['.repeat(FAR_DOWN) + ']'.repeat(FAR_DOWN)
    if (!endpoint.body) return undefined
    let schema = this.schemas.get(name)
    if (!schema) {
      schema = z.toJSONSchema(endpoint.body, { unrepresentable: 'any', io: 'input' }) as Schema
      this.schemas.set(name, schema)
    }
    return JSON.stringify(this.valueOf(schema, schema, 0))
  }

  private valueOf(schema: Schema, root: Schema, depth: number): unknown {
    if (this.random() < 0.04) return this.pick(NASTY)
    if (schema.$ref) return this.valueOf(resolve(schema.$ref, root), root, depth + 1)
    const options = schema.anyOf ?? schema.oneOf
    if (options) return this.valueOf(this.pick(options), root, depth)
    if (schema.allOf) return this.valueOf(this.pick(schema.allOf), root, depth)
    if (schema.const !== undefined) return schema.const
    if (schema.enum) return this.pick(schema.enum)
    return this.plainValue(schema, root, depth)
  }

  private plainValue(schema: Schema, root: Schema, depth: number): unknown {
    switch (schema.type) {
      case 'object':
        return this.objectOf(schema, root, depth)
      case 'array': {
        const length = depth > DEEPEST ? 0 : Math.floor(this.random() * 4)
        return Array.from({ length }, () => this.valueOf(schema.items ?? {}, root, depth + 1))
      }
      case 'integer':
      case 'number':
        return Math.max(schema.minimum ?? -5, Math.floor(this.random() * 20))
      case 'boolean':
        return this.random() < 0.5
      case 'string':
        return this.textOf(schema)
      default:
        return this.pick(NASTY)
    }
  }

  private objectOf(schema: Schema, root: Schema, depth: number): Record<string, unknown> {
    const made: Record<string, unknown> = {}
    for (const [key, part] of Object.entries(schema.properties ?? {})) {
      const isNeeded = schema.required?.includes(key) && this.random() < 0.98
      if (isNeeded || (depth < DEEPEST && this.random() < 0.4))
        made[key] = this.valueOf(part, root, depth + 1)
    }
    if (this.random() < 0.03)
      made[this.pick(['__proto__', 'constructor', 'x\u0000', 'code', 'extra'])] = this.pick(NASTY)
    return made
  }

  private textOf({ format, pattern }: Schema): string {
    if (format === 'uuid' || this.random() < 0.2) return this.idOf(this.pick([...this.known.keys()]))
    if (format === 'email') return `somebody${Math.floor(this.random() * 1000)}@wherry.example`
    if (pattern?.includes('\\d{4}')) return '2026-11-24'
    return this.pick(['boat', 'hull', 'q1', 'true', 'a = 1', 'x in ["y"]', 'key-0123456789', 'demo_haul_out'])
  }
}

function resolve(ref: string, root: Schema): Schema {
  let at: unknown = root
  for (const part of ref.replace(/^#\/?/, '').split('/').filter(Boolean))
    at = typeof at === 'object' && at !== null ? Reflect.get(at, part) : undefined
  return (at ?? {}) as Schema
}

const ID = /"(id|token|code|key|link)":"([^"]{1,80})"/g
const MOST_KNOWN = 300
/** What an address is about. */
const kindOf = (path: string) => path.split(/[/?]/)[2] ?? ''

const PEOPLE = ['', 'ines@wherry.example', 'tobias@wherry.example', 'office@wherry.example']

/** Sends so many requests to a server as the people of the demonstration and as strangers; what it answers is remembered for later ones. */
export async function fuzz(url: string, count: number, seed: number, together = 8): Promise<Fuzzed> {
  const requests = new Requests(seed)
  const fuzzed: Fuzzed = { statuses: {}, faults: [] }
  const cookies = new Map<string, string>()
  for (const email of PEOPLE) cookies.set(email, await signIn(url, email))
  let left = count
  const one = async () => {
    while (left-- > 0) {
      const email = requests.pick(PEOPLE)
      const status = await sendOne(url, requests, cookies.get(email) ?? '', fuzzed)
      // A request may end sessions, change the password or suspend: where it can be, the person is back.
      if (status === 401 && email !== '' && left % AGAIN_EVERY === 0)
        cookies.set(email, await signIn(url, email))
    }
  }
  await Promise.all(Array.from({ length: together }, one))
  return fuzzed
}
const AGAIN_EVERY = 5

/** The cookie of a person's new session; of none for nobody, and for whoever can't sign in any more. */
async function signIn(url: string, email: string): Promise<string> {
  if (email === '') return ''
  const response = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: 'wherry-reach' }),
  })
  await response.text()
  return response.headers
    .getSetCookie()
    .map(c => c.split(';')[0])
    .join('; ')
}

/** @returns the status; 0 when there was no answer */
async function sendOne(url: string, requests: Requests, cookie: string, fuzzed: Fuzzed): Promise<number> {
  const { method, path, body, type } = requests.next()
  const told = `${method} ${path.slice(0, 200)} ${(body ?? '').slice(0, 400)}`
  try {
    const response = await fetch(url + path, {
      method,
      headers: { ...(type ? { 'content-type': type } : {}), cookie },
      body: method === 'GET' ? undefined : body,
      signal: AbortSignal.timeout(60_000),
      redirect: 'manual',
    })
    const text = await response.text()
    fuzzed.statuses[response.status] = (fuzzed.statuses[response.status] ?? 0) + 1
    if (response.status >= 500) fuzzed.faults.push(`${response.status} ${told} → ${text.slice(0, 300)}`)
    requests.learn(path, text)
    return response.status
  } catch (error) {
    fuzzed.faults.push(`${told} → ${error instanceof Error ? error.message : 'failed'}`)
    return 0
  }
}

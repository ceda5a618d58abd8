import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** JSON as it is sent. */
type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json }

/** A response that waits on this device to be sent. */
export interface Waiting {
  /** The key of its sending: the server stores it once, however often it is sent. */
  key: string
  /** The link that it is sent to. */
  token: string
  /** The sending: what the server is to take. */
  body: { readonly [key: string]: Json }
  /** What the page had kept, to be brought back where the server refuses it. */
  kept: string
  /** What the server refused it with; null while it waits. */
  refusal: string | null
}

/** A file that waits with a response. `uploaded`: what the server calls it, once it has it. */
export interface WaitingFile {
  id: string
  token: string
  question: string
  key: string
  name: string
  content: Blob
  uploaded: string | null
}

/** What came of a response that was sent by itself. */
export interface Delivered {
  key: string
  /** The server’s answer. */
  answer: { [key: string]: unknown }
}

interface Outbox extends DBSchema {
  waiting: { key: string; value: Waiting }
  files: { key: string; value: WaitingFile }
  delivered: { key: string; value: Delivered }
}

/** What a file is called here that the server does not have yet. */
const HERE = 'here-'
/** So many responses wait on one device at most. */
export const MOST_WAITING = 500
const LOCK = 'tobbin-outbox'

let opened: Promise<IDBPDatabase<Outbox>> | null = null
const database = () =>
  (opened ??= openDB<Outbox>('tobbin-outbox', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'key' })
      db.createObjectStore('files', { keyPath: 'id' })
      db.createObjectStore('delivered', { keyPath: 'key' })
    },
  }))

/** What the server does not take, or this device can’t keep, and why. */
export class Refusal extends Error {
  /** As the server’s own refusals come. */
  readonly data: { code: string; sentence: string }
  constructor(readonly sentence: string) {
    super(sentence)
    this.data = { code: 'refused', sentence }
  }
}

/** Keeps a file until it can be sent. @returns what it is called meanwhile */
export async function keepFile(file: Omit<WaitingFile, 'id' | 'uploaded'>): Promise<string> {
  const id = `${HERE}${crypto.randomUUID()}`
  await (await database()).put('files', { ...file, id, uploaded: null })
  return id
}

/** Keeps a response until it can be sent. @throws where too many wait already */
export async function keepWaiting(response: Omit<Waiting, 'refusal'>): Promise<void> {
  const db = await database()
  if ((await db.count('waiting')) >= MOST_WAITING)
    throw new Refusal(`${MOST_WAITING} responses wait on this device already. Find a connection first.`)
  await db.put('waiting', { ...response, refusal: null })
}

/** What waits for a link, or for all of them. */
export async function listWaiting(token?: string): Promise<Waiting[]> {
  const all = await (await database()).getAll('waiting')
  return token === undefined ? all : all.filter(w => w.token === token)
}

/** Takes a response out of the outbox, with its files. */
export async function dropWaiting(key: string): Promise<void> {
  const db = await database()
  const files = (await db.getAll('files')).filter(f => f.key === key)
  for (const { id } of files) await db.delete('files', id)
  await db.delete('waiting', key)
}

/** What was delivered by itself under a key; null where nothing was. It is told once. */
export async function takeDelivered(key: string): Promise<Delivered | null> {
  const db = await database()
  const found = await db.get('delivered', key)
  if (found) await db.delete('delivered', key)
  return found ?? null
}

/** Calls the server. @throws {Refusal} what it said; anything else where it can’t be reached or has failed */
async function call(address: string, init: RequestInit): Promise<{ [key: string]: unknown }> {
  const answer = await fetch(address, { ...init, credentials: 'same-origin' })
  const said: unknown = await answer.json()
  if (!isRecord(said)) throw new Error('What came back is not what the server says.')
  if (answer.ok) return said
  const { status } = answer
  // It may do it later: too often, or out of order.
  if (status === 429 || status >= 500) throw new Error(`The server can’t do this now (${status}).`)
  const { data } = said
  const inner = isRecord(data) && isRecord(data.data) ? data.data : data
  const sentence = isRecord(inner) && typeof inner.sentence === 'string' ? inner.sentence : null
  throw new Refusal(sentence ?? 'The server does not take this response.')
}
const isRecord = (value: unknown): value is { [key: string]: unknown } =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Gives the server the files of a body that only this device has. @returns the body with what the server calls them */
export async function uploadFiles(body: Waiting['body']): Promise<Waiting['body']> {
  const db = await database()
  const names = new Map<string, string>()
  for (const id of filesHere(body)) {
    const file = await db.get('files', id)
    if (!file) throw new Refusal('A file of this response is no longer on this device. Give it again.')
    names.set(id, file.uploaded ?? (await upload(db, file)))
  }
  const renamed = (value: Json): Json => {
    if (typeof value === 'string') return names.get(value) ?? value
    if (isList(value)) return value.map(renamed)
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, renamed(inner)]))
  }
  return Object.fromEntries(Object.entries(body).map(([name, value]) => [name, renamed(value)]))
}
const isList = (value: Json): value is readonly Json[] => Array.isArray(value)

async function upload(db: IDBPDatabase<Outbox>, file: WaitingFile): Promise<string> {
  const { token, question, key, name, content } = file
  const query = new URLSearchParams({ question, key, name })
  const headers = { 'content-type': 'application/octet-stream' }
  const taken = await call(`/api/answer/${token}/files?${query}`, { method: 'POST', body: content, headers })
  const uploaded = String(taken.file)
  await db.put('files', { ...file, uploaded })
  return uploaded
}

/** What a body calls files that only this device has. */
export function filesHere(value: Json): string[] {
  if (typeof value === 'string') return value.startsWith(HERE) ? [value] : []
  if (typeof value !== 'object' || value === null) return []
  return Object.values(value).flatMap(inner => filesHere(inner))
}

async function deliver(response: Waiting): Promise<void> {
  const body = await uploadFiles(response.body)
  const sent = await call(`/api/answer/${response.token}`, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  })
  const { key } = response
  await (await database()).put('delivered', { key, answer: sent })
  await dropWaiting(key)
}

/**
 * Sends what waits, one after the other; pages and the worker never at once, so that nothing is sent while it is being sent. What the server
 * refuses stays, with what it said. @throws where the server can’t be reached: the rest waits on
 */
export const sendWaiting = (): Promise<void> =>
  navigator.locks.request(LOCK, async () => {
    for (const response of await listWaiting()) {
      if (response.refusal !== null) continue
      try {
        await deliver(response)
      } catch (error) {
        if (!(error instanceof Refusal)) throw error
        await (await database()).put('waiting', { ...response, refusal: error.sentence })
      }
    }
  })

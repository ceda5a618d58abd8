import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { computed, nextTick, reactive, ref, shallowReactive, shallowRef, watch } from 'vue'
import type { Form, Item } from '#core/form/definition'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import { dayHere } from '../browser/dayHere'
import { readJson } from '../browser/readJson'
import { isObject } from '../browser/isObject'
import { refusalOf } from '../composables/useRefusal'
import { useDraft } from '../stores/draft'

// What the application brings into every file by itself.
for (const [name, value] of Object.entries({
  ref,
  computed,
  reactive,
  shallowReactive,
  shallowRef,
  watch,
  refusalOf,
  dayHere,
  linkAddress: (path: string) => `http://wherry.example${path}`,
  readJson,
  isObject,
}))
  vi.stubGlobal(name, value)

export const question = (code: string, more: Record<string, unknown> = {}) =>
  ({ kind: 'question', type: 'text', code, label: code, ...more }) as Item
export const START: Form = {
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [
    { code: 's', title: 'S', items: ['a', 'b', 'c'].map(c => question(c)) },
    { code: 't', title: 'T', items: [question('d')] },
  ],
}
export const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** A server that keeps one form, as the routes of the application do. */
export class Server {
  form: Form
  saves: { revision: number; edits: Edit[]; by: string }[] = []
  isReachable = true
  constructor(form: Form) {
    this.form = copy(form)
  }

  /** What `$fetch` is for somebody who is signed in by a name. */
  fetchFor(by: string) {
    return (url: string, options: Options = {}): Promise<unknown> => {
      if (!this.isReachable) return Promise.reject(new TypeError('fetch failed'))
      if (url.endsWith('/edits')) return this.save(by, options.body)
      const since = this.saves.slice(options.query?.since ?? 0)
      if (url.endsWith('/changes')) return Promise.resolve(copy(since.map(s => ({ ...s, own: s.by === by }))))
      return Promise.resolve({
        id: 'x',
        draft: copy(this.form),
        revision: this.saves.length,
        savedAt: '2026-11-24T10:40:00Z',
        releases: [],
        responses: 0,
        powers: ['own', 'design', 'suggest', 'release', 'responses', 'act', 'read'],
        accepted: [],
        workspace: { name: '', address: '' },
        looks: [],
      })
    }
  }

  private save(by: string, { base, edits } = { base: -1, edits: [] as Edit[] }): Promise<unknown> {
    if (base !== this.saves.length) return refuse('outdated', 'Somebody else changed this form.')
    try {
      this.form = applyEdits(this.form, copy(edits)).form
    } catch (error) {
      if (error instanceof EditError) return refuse('edit-impossible', error.message)
      throw error
    }
    this.saves.push({ revision: base + 1, edits: copy(edits), by })
    return Promise.resolve({ revision: base + 1, savedAt: '2026-11-24T10:42:00Z' })
  }
}
interface Options {
  body?: { base: number; edits: Edit[] }
  query?: { since: number }
}
const refuse = (code: string, sentence: string) =>
  Promise.reject(Object.assign(new Error(sentence), { status: 409, data: { data: { code, sentence } } }))

/** What a browser keeps under names. */
function storage() {
  const kept = new Map<string, string>()
  return {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  }
}

/** Somebody at a draft: `does` what follows with that person's connection and tab; `reload` begins anew in the same tab. */
export async function person(server: Server, by: string) {
  let pinia = createPinia()
  const tab = storage()
  const does = async <T>(what: (draft: ReturnType<typeof useDraft>) => T | Promise<T>): Promise<T> => {
    vi.stubGlobal('$fetch', server.fetchFor(by))
    vi.stubGlobal('sessionStorage', tab)
    const done = await what(useDraft(pinia))
    await nextTick()
    return done
  }
  const load = () => does(draft => draft.load('x'))
  const reload = () => {
    pinia = createPinia()
    return load()
  }
  await load()
  return { draft: useDraft(pinia), does, reload }
}

/** A browser of one’s own: no store yet, nothing kept, a clock that stands. */
export function beginAfresh() {
  vi.useFakeTimers({ now: new Date('2026-11-24T10:00:00') })
  setActivePinia(createPinia())
  vi.stubGlobal('localStorage', storage())
  vi.stubGlobal('sessionStorage', storage())
}

// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, defineComponent, h, ref, shallowRef, Suspense, watch } from 'vue'
import { createPinia, setActivePinia } from 'pinia'
import { usePagedSearch } from '../../composables/usePagedSearch'
import { useCollect } from '../../stores/collect'
import ResponseTable from './ResponseTable.vue'

interface Query {
  page: number
  size: number
  search: string
  sort: string
}
const asked: Query[] = []
const answer = {
  all: 40,
  count: 40,
  hasTurns: true,
  columns: [{ code: 'boat', label: 'Boat', section: 'S', type: 'text' }],
  rows: [
    {
      id: 'r1',
      number: 40,
      isWithdrawn: false,
      sentAt: '2026-11-24',
      release: 3,
      turn: null,
      tray: null,
      cells: { boat: 'Wherry' },
    },
  ],
}
// Settled at once.
vi.mock('@vueuse/core', () => ({ refDebounced: <T>(typed: T) => typed, useEventListener: vi.fn() }))
vi.mock('~/api/callApi', () => ({
  callApi: (_endpoint: unknown, { query }: { query: Query }) => {
    asked.push(query)
    return Promise.resolve(query.search === '' ? answer : { ...answer, count: 2 })
  },
}))

beforeEach(() => {
  asked.length = 0
  // What the application brings into every file by itself; fetching, but at once.
  vi.stubGlobal('computed', computed)
  vi.stubGlobal('ref', ref)
  vi.stubGlobal('watch', watch)
  vi.stubGlobal('usePagedSearch', usePagedSearch)
  vi.stubGlobal('shallowRef', shallowRef)
  vi.stubGlobal('useCollect', useCollect)
  vi.stubGlobal('useDraft', () => ({ may: () => false, releases: [] }))
  setActivePinia(createPinia())
  vi.stubGlobal('counted', (n: number, noun: string) => `${n} ${noun}s`)
  vi.stubGlobal(
    'useAsyncData',
    async (_key: string, fetched: () => Promise<unknown>, { watch: sources }: { watch: never[] }) => {
      const data = shallowRef(await fetched())
      watch(sources, async () => (data.value = await fetched()))
      return { data, error: ref(null), pending: ref(false) }
    },
  )
})

/** Stands for the library’s table: shows the headers and cells that it is given, and sorts when a header is clicked. */
const Table = defineComponent({
  props: ['headers', 'items', 'itemsLength', 'sortBy', 'page'],
  emits: ['update:sortBy', 'update:page', 'click:row'],
  setup:
    (props, { emit, slots }) =>
    () =>
      h('div', [
        ...props.headers.map(({ key, title }: { key: string; title: string }) =>
          h('b', { 'data-key': key, onClick: () => emit('update:sortBy', [{ key, order: 'desc' }]) }, title),
        ),
        ...props.items.map((item: object) => slots['item.sentAt']?.({ item })),
        h('i', { onClick: () => emit('update:page', 2) }, JSON.stringify(props.items)),
      ]),
})

const Field = {
  props: ['modelValue'],
  emits: ['update:modelValue'],
  template: `<input :value="modelValue" @input="$emit('update:modelValue', $event.target.value)" />`,
}
async function mounted() {
  const page = mount(
    { render: () => h(Suspense, () => h(ResponseTable, { form: 'f' })) },
    {
      global: {
        components: { VDataTableServer: Table, VTextField: Field },
        stubs: { VBtn: { template: '<button><slot /></button>' } },
        mocks: { readableDay: (day: string) => day },
      },
    },
  )
  await flushPromises()
  return page
}
describe('the table of responses', () => {
  it('has a column for each question, its turn only where the form has turns, and opens a response', async () => {
    const page = await mounted()
    expect(page.findAll('b').map(b => b.text())).toEqual(['No.', 'Sent', 'Version', 'Turn', 'Boat'])
    expect(page.get('i').text()).toContain('"turn":"done"')
    await page.get('button').trigger('click')
    expect(useCollect().chosen).toBe('r1')
  })

  it('asks for the newest first, for a column in the order chosen, and for the next page', async () => {
    const page = await mounted()
    await page.get('[data-key="cells.boat"]').trigger('click')
    await flushPromises()
    await page.get('i').trigger('click')
    await flushPromises()
    expect(asked.map(({ sort, page: n }) => [sort, n])).toEqual([
      ['-sentAt', 1],
      ['-cells.boat', 1],
      ['-cells.boat', 2],
    ])
  })

  it('a search begins again at the first page, and the heading says how many of all', async () => {
    const page = await mounted()
    await page.get('i').trigger('click')
    await flushPromises()
    await page.get('input').setValue('wherry')
    await flushPromises()
    expect(asked.at(-1)).toMatchObject({ search: 'wherry', page: 1 })
    expect(page.get('h2').text()).toBe('2 of 40 responses')
  })
})

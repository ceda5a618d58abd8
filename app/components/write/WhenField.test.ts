// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { listPlaces } from '#core/form/walk'
import '../../testing/stores'
import { useBegunRules } from '../../stores/begunRules'
import WhenField from './WhenField.vue'

// What the application brings into every file by itself.
beforeEach(() => {
  setActivePinia(createPinia())
  vi.stubGlobal('useDraft', () => ({ id: 'f' }))
  vi.stubGlobal('useBegunRules', useBegunRules)
})

const SegmentedChoice = {
  props: ['options', 'modelValue'],
  emits: ['update:modelValue'],
  template: `<b
    v-for="o in options" role="radio" :aria-checked="o.value === modelValue" @click="$emit('update:modelValue', o.value)"
  >{{ o.title }}</b>`,
}
const [place] = listPlaces({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [{ code: 's', title: 'S', items: [] }],
})
const mounted = (value: true | string | undefined) =>
  mount(WhenField, {
    props: { value, name: 'Required', words: 'Required when', place: place!, always: 'when shown' },
    global: {
      stubs: { SegmentedChoice, RuleField: { props: ['text'], template: '<i class="rule">{{ text }}</i>' } },
    },
  })
const modes = (field: ReturnType<typeof mounted>) => field.findAll('[role="radio"]')

describe('never, always, or when a condition holds', () => {
  it.each([
    [undefined, 'never'],
    [true, 'when shown'],
    ['boat = true', 'when …'],
    ['', 'when …'],
  ] as const)('%s is shown as “%s”, and its rule only where there is one', (value, words) => {
    const field = mounted(value)
    const checked = modes(field).filter(m => m.attributes('aria-checked') === 'true')
    expect(checked.map(m => m.text())).toEqual([words])
    expect(field.find('.rule').exists()).toBe(typeof value === 'string')
  })

  it('choosing a mode gives its value; a rule that is there stays', async () => {
    const field = mounted('boat = true')
    for (const mode of modes(field)) await mode.trigger('click')
    expect(field.emitted('change')).toEqual([[null], [true]])
    expect(field.find('.rule').text()).toBe('boat = true')
  })

  it('“when” begins a rule, and nothing is in the draft until there is one', async () => {
    const field = mounted(undefined)
    await modes(field).at(-1)?.trigger('click')
    expect([field.find('.rule').exists(), field.emitted('change')]).toEqual([true, undefined])
  })
})

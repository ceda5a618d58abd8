// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { computed } from 'vue'
import type { Pointable } from '#core/form/names'
import { hasWords } from '../../browser/hasWords'
import QuestionPicker from './QuestionPicker.vue'

// What the application brings into every file by itself.
beforeAll(() => {
  vi.stubGlobal('computed', computed)
  vi.stubGlobal('hasWords', hasWords)
})

const question = (number: string, code: string, label: string) => ({ number, code, label }) as Pointable
const QUESTIONS = [
  question('1.1', 'boat_name', 'Name of the boat'),
  question('1.2', 'loa', 'Length over all'),
  question('2.1', 'owner_name', 'Name of the owner'),
]
const Field = {
  name: 'VAutocomplete',
  props: ['modelValue', 'items', 'customFilter'],
  emits: ['update:modelValue'],
  template: '<i />',
}
function mounted(value = 'loa') {
  const picker = mount(QuestionPicker, {
    props: { value, questions: QUESTIONS },
    global: { stubs: { VAutocomplete: Field } },
  })
  return { picker, field: picker.getComponent(Field) }
}

describe('pointing at a question', () => {
  it('shows the chosen one by number and label', () => {
    const { field } = mounted()
    const { items, modelValue } = field.props() as {
      items: { value: string; title: string }[]
      modelValue: string
    }
    expect(items.find(i => i.value === modelValue)?.title).toBe('1.2 Length over all')
  })

  it.each([
    ['name', ['boat_name', 'owner_name']],
    ['OWNER nam', ['owner_name']],
    ['1.2', ['loa']],
    ['loa', ['loa']],
    ['no such thing', []],
  ])('“%s” offers %j', (words, codes) => {
    const { items, customFilter } = mounted().field.props() as {
      items: { value: string; title: string }[]
      customFilter: (title: string, typed: string, item: { raw: unknown }) => boolean
    }
    const offered = items.filter(i => customFilter(i.title, words, { raw: { ...i, code: i.value } }))
    expect(offered.map(i => i.value)).toEqual(codes)
  })

  it('the one that is chosen already is not chosen again, nor nothing', () => {
    const { picker, field } = mounted('loa')
    field.vm.$emit('update:modelValue', 'loa')
    field.vm.$emit('update:modelValue', null)
    expect(picker.emitted('choose')).toBeUndefined()
    field.vm.$emit('update:modelValue', 'boat_name')
    expect(picker.emitted('choose')).toEqual([['boat_name']])
  })
})

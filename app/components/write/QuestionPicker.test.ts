// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { computed, ref, useId } from 'vue'
import type { Pointable } from '#core/form/names'
import QuestionPicker from './QuestionPicker.vue'

// What the application brings into every file by itself.
beforeAll(() => {
  vi.stubGlobal('computed', computed)
  vi.stubGlobal('ref', ref)
  vi.stubGlobal('useId', useId)
  vi.stubGlobal('inputText', (event: Event) => (event.target as HTMLInputElement).value)
})

const question = (number: string, code: string, label: string) => ({ number, code, label }) as Pointable
const QUESTIONS = [
  question('1.1', 'boat_name', 'Name of the boat'),
  question('1.2', 'loa', 'Length over all'),
  question('2.1', 'owner_name', 'Name of the owner'),
]
const mounted = (value = 'loa') => mount(QuestionPicker, { props: { value, questions: QUESTIONS } })
const offered = (picker: ReturnType<typeof mounted>) => picker.findAll('li code').map(code => code.text())
const active = (picker: ReturnType<typeof mounted>) => picker.find('[aria-selected="true"] code').text()

describe('pointing at a question', () => {
  it('shows the chosen one until something is typed, and again when it is left', async () => {
    const picker = mounted()
    const input = picker.get('input')
    expect(input.element.value).toBe('1.2 Length over all')
    await input.trigger('focus')
    await input.setValue('nam')
    await input.trigger('blur')
    expect(input.element.value).toBe('1.2 Length over all')
    expect(picker.emitted('choose')).toBeUndefined()
  })

  it.each([
    ['name', ['boat_name', 'owner_name']],
    ['OWNER nam', ['owner_name']],
    ['1.2', ['loa']],
    ['no such thing', []],
  ])('“%s” offers %j', async (words, codes) => {
    const picker = mounted()
    await picker.get('input').setValue(words)
    expect(offered(picker)).toEqual(codes)
    if (codes.length === 0) expect(picker.text()).toContain('no question like this')
  })

  it('goes by arrows, no further than the ends, and chooses by Enter', async () => {
    const picker = mounted()
    const input = picker.get('input')
    await input.setValue('name')
    await input.trigger('keydown', { key: 'ArrowUp' })
    expect(active(picker)).toBe('boat_name')
    for (let i = 0; i < 5; i++) await input.trigger('keydown', { key: 'ArrowDown' })
    expect(active(picker)).toBe('owner_name')
    await input.trigger('keydown', { key: 'Enter' })
    expect(picker.emitted('choose')).toEqual([['owner_name']])
  })

  it('the one that is chosen already is not chosen again; Enter on nothing chooses nothing', async () => {
    const picker = mounted('loa')
    const input = picker.get('input')
    await input.setValue('length')
    await input.trigger('keydown', { key: 'Enter' })
    await input.setValue('no such thing')
    await input.trigger('keydown', { key: 'Enter' })
    expect(picker.emitted('choose')).toBeUndefined()
  })
})

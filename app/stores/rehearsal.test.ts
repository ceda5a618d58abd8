import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { allProblems } from '#core/fill/fill'
import type { Form } from '#core/form/definition'
import { prove } from '#core/prove/prove'
import { dayHere } from '../browser/dayHere'
import { useDraft } from './draft'
import { useRehearsal } from './rehearsal'
import { beginAfresh, question, Server } from '../testing/stores'

beforeEach(beginAfresh)
afterEach(() => {
  vi.useRealTimers()
})

const form: Form = {
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [
    {
      code: 's',
      title: 'S',
      items: [
        question('age', { type: 'integer', required: true, min: 0 }),
        question('school', { shownWhen: 'age < 18', required: true }),
      ],
    },
    {
      code: 't',
      title: 'T',
      items: [
        question('born', { type: 'date' }),
        {
          kind: 'note',
          code: 'old',
          text: 'Old',
          shownWhen: 'years and months duration(born, today()).years > 17 and age < 18',
        },
      ],
    },
  ],
  promises: [
    {
      code: 'p',
      text: 'Nobody is grown up and a child',
      holds: 'not(years and months duration(born, today()).years > 17 and age < 18)',
    },
  ],
}
const begin = async () => {
  vi.stubGlobal('$fetch', new Server(form).fetchFor('Ines'))
  await useDraft().load('x')
  const rehearsal = useRehearsal()
  rehearsal.restore()
  return rehearsal
}

describe('the rehearsal', () => {
  it('keeps practice answers through edits', async () => {
    const rehearsal = await begin()
    rehearsal.answer('age', 12)
    rehearsal.answer('school', 'Reach School')
    useDraft().edit([{ do: 'change', what: 'item/school', set: { shownWhen: 'age < 10' } }])
    expect([rehearsal.answers, rehearsal.filled?.values.includes('Reach School')]).toEqual([
      { age: 12, school: 'Reach School' },
      false,
    ])
    useDraft().undo()
    expect(rehearsal.filled?.values).toContain('Reach School')
  })

  it('keeps practice answers through reloads, by name as well; nonsense that was kept is none', async () => {
    const rehearsal = await begin()
    rehearsal.answer('age', 12)
    rehearsal.answer('school', 'Reach School')
    rehearsal.saveSet('A child')
    rehearsal.startAfresh()
    rehearsal.saveSet('Nobody')
    setActivePinia(createPinia())
    const again = await begin()
    expect([again.answers, again.sets.map(s => s.name)]).toEqual([{}, ['A child', 'Nobody']])
    again.openSet('A child')
    again.removeSet('Nobody')
    expect([again.answers, again.sets.map(s => s.name)]).toEqual([
      { age: 12, school: 'Reach School' },
      ['A child'],
    ])
    localStorage.setItem('tobbin-practice-x', '{nonsense')
    localStorage.setItem('tobbin-sets-x', '{nonsense')
    setActivePinia(createPinia())
    const last = await begin()
    expect([last.answers, last.sets]).toEqual([{}, []])
  })
})

describe('filling the rest', () => {
  it('fills the rest so that nothing is missing, and leaves what is answered', async () => {
    const rehearsal = await begin()
    rehearsal.answer('age', 9)
    expect(rehearsal.fillRest()).toBe(null)
    expect([rehearsal.answers.age, rehearsal.filled && allProblems(rehearsal.filled)]).toEqual([9, []])
  })

  it('fills files and signatures with stand-ins, and says which question defeats it', async () => {
    const rehearsal = await begin()
    const required = { required: true }
    const items = [
      question('scan', { ...required, type: 'file', kinds: ['image'] }),
      question('hand', { ...required, type: 'signature' }),
      question('even', {
        ...required,
        type: 'integer',
        validWhen: [{ rule: 'even > 9 and even < 9', message: 'No.' }],
      }),
    ]
    for (const [index, item] of items.entries())
      useDraft().edit([{ do: 'insert', node: item, into: 'section/t', at: index }])
    expect(rehearsal.fillRest()).toMatchObject({ path: 'even', sentence: 'No.' })
    expect(rehearsal.answers).toEqual({})
    useDraft().edit([{ do: 'change', what: 'item/even', set: { validWhen: null } }])
    expect([rehearsal.fillRest(), rehearsal.filled && allProblems(rehearsal.filled)]).toEqual([null, []])
  })
})

describe('the rehearsal', () => {
  it('shows a witness at its section, on its day, with the rules concerned; answering goes on from there', async () => {
    const rehearsal = await begin()
    const finding = prove(form, dayHere()).findings.find(f => f.code === 'promise-broken')
    if (!finding) throw new Error('The promise holds.')
    rehearsal.show({ ...finding, address: 'item/old', today: '2027-01-31' })
    expect([rehearsal.place.section, rehearsal.lit, rehearsal.today, rehearsal.answers]).toEqual([
      1,
      'item/old',
      '2027-01-31',
      finding.witness,
    ])
    // A promise stands nowhere: the questions that it names are concerned.
    expect([...rehearsal.concerned]).toEqual(['item/born', 'item/age'])
    rehearsal.answer('school', 'Reach School')
    expect(rehearsal.answers.school).toBe('Reach School')
    rehearsal.startAfresh()
    expect([rehearsal.place.section, rehearsal.lit, rehearsal.today, rehearsal.concerned.size]).toEqual([
      0,
      null,
      dayHere(),
      0,
    ])
  })

  it('keeps the practice answers under a witness, over a reload too, and goes on where they were left', async () => {
    const rehearsal = await begin()
    rehearsal.answer('age', 12)
    rehearsal.place = { section: 1, only: null }
    const finding = prove(form, dayHere()).findings.find(f => f.witness)
    if (!finding) throw new Error('Nothing is found.')
    const atExample = () => [rehearsal.shown !== null, rehearsal.place.section, rehearsal.answers.age]
    rehearsal.show({ ...finding, address: 'item/age' })
    rehearsal.show({ ...finding, address: 'item/age' })
    rehearsal.answer('age', 5)
    expect(atExample()).toEqual([true, 0, 5])
    rehearsal.unlight()
    expect(atExample()).toEqual([false, 1, 12])
    rehearsal.show(finding)
    setActivePinia(createPinia())
    expect((await begin()).answers).toEqual({ age: 12 })
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import { emptyForm } from '../form/definition'
import type { Turn } from '../form/turns'
import { findActors } from './actors'
import { dueDay, listNotices } from './dueDays'

const day = fc
  .date({ min: new Date('1900-01-01'), max: new Date('2200-12-31'), noInvalidDate: true })
  .map(d => d.toISOString().slice(0, 10))
const DAY = 86_400_000
/** The days after one up to another, as the calendar of the platform has them. */
function daysAfter(from: string, to: string): Date[] {
  const days: Date[] = []
  for (let at = Date.parse(from) + DAY; at <= Date.parse(to); at += DAY) days.push(new Date(at))
  return days
}
const isWorking = (date: Date) => date.getUTCDay() % 6 !== 0
const turn = (more: Partial<Turn>): Turn => ({
  code: 'check',
  party: 'yard',
  by: 'link',
  access: {},
  ...more,
})

describe('when a turn is due', () => {
  it('so many days after it was opened; of working days only those from Monday to Friday count', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: 0, max: 366 }), fc.boolean(), (opened, days, working) => {
        const due = dueDay(opened, working ? { days, working } : { days })
        const between = daysAfter(opened, due)
        expect(between.filter(d => !working || isWorking(d))).toHaveLength(days)
        const last = between.at(-1)
        if (working && last) expect(isWorking(last)).toBe(true)
      }),
    )
  })

  it('what is posted about it comes in order, and nothing without a due day', () => {
    const days = fc.integer({ min: -20, max: 20 })
    fc.assert(
      fc.property(day, fc.array(days, { maxLength: 6 }), fc.nat(20), (due, reminders, after) => {
        const posted = turn({ reminders, escalation: { after, to: 'boss@wherry.example' } })
        const notices = listNotices(posted, due)
        expect(notices.map(n => n.on)).toEqual(notices.map(n => n.on).sort())
        expect(notices.map(n => (Date.parse(n.on) - Date.parse(due)) / DAY).sort()).toEqual(
          [...reminders, after].sort(),
        )
        expect(listNotices(posted, null)).toEqual([])
      }),
    )
  })
})

it('in rotation everybody has as many turns as the others, whoever began', () => {
  const all = ['ada@wherry.example', 'bo@wherry.example', 'cy@wherry.example']
  const filled = fill(planOf(emptyForm('f', 'F')), {}, '2026-11-24')
  fc.assert(
    fc.property(
      fc.constantFrom('', 'gone@wherry.example', ...all),
      fc.integer({ min: 1, max: 5 }),
      (first, rounds) => {
        const by = { people: 'Crew', rotate: true } as const
        let before = first === '' ? [] : [first]
        const had = new Map<string, number>()
        for (let i = 0; i < rounds * all.length; i++) {
          before = findActors(turn({ by }), { filled, teams: new Map([['Crew', all]]), before })
          expect(before).toHaveLength(1)
          for (const one of before) had.set(one, (had.get(one) ?? 0) + 1)
        }
        expect([...had.values()]).toEqual(all.map(() => rounds))
      },
    ),
  )
  expect(findActors(turn({ by: { people: 'Crew' } }), { filled, teams: new Map(), before: [] })).toEqual([])
})

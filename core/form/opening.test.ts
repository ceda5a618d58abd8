import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { instantIn, isZone, Opening, openingState, tellOpening } from './opening'

const ZONES = [
  'UTC',
  'Europe/Berlin',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Pacific/Apia',
]
/** What clocks of a zone show, as the platform tells it. */
const shown = (zone: string, at: Date) =>
  new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' })
    .format(at)
    .replace(' ', 'T')
const moment = fc.date({ min: new Date('1990-01-01'), max: new Date('2040-01-01'), noInvalidDate: true })

describe('a moment in a time zone', () => {
  it('is the first at which clocks there show it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ZONES), moment, (zone, at) => {
        const local = shown(zone, at)
        const found = instantIn(zone, local)
        expect(shown(zone, found)).toBe(local)
        expect(found.getTime()).toBeLessThanOrEqual(at.getTime())
      }),
      {
        examples: [
          ['Europe/Berlin', new Date('2026-10-25T00:30:00Z')],
          ['Europe/Berlin', new Date('2026-10-25T01:30:00Z')],
        ],
      },
    )
  })

  it('that clocks pass over in spring comes when they have', () => {
    expect(instantIn('Europe/Berlin', '2026-03-29T02:30').toISOString()).toBe('2026-03-29T01:30:00.000Z')
  })

  it('has a zone that there is', () => {
    expect(ZONES.every(isZone)).toBe(true)
    expect(['Nowhere/Reach', ''].some(isZone)).toBe(false)
  })
})

describe('an opening', () => {
  const opening = Opening.parse({
    opensAt: '2026-12-01T09:00',
    closesAt: '2026-12-24T12:00',
    zone: 'Europe/Berlin',
    most: 3,
  })
  const at = (text: string) => new Date(text)

  it('goes from before to open to after; full while as many stand as are taken', () => {
    expect(openingState(opening, at('2026-12-01T07:59:59Z'), 0)).toBe('before')
    expect(openingState(opening, at('2026-12-01T08:00:00Z'), 2)).toBe('open')
    expect(openingState(opening, at('2026-12-01T08:00:00Z'), 3)).toBe('full')
    expect(openingState(opening, at('2026-12-24T11:00:00Z'), 0)).toBe('after')
    expect(openingState({ ...opening, isClosed: true }, at('2026-12-02T08:00:00Z'), 0)).toBe('between')
  })

  it('takes what was begun for some minutes longer', () => {
    expect(openingState(opening, at('2026-12-24T11:14:59Z'), 0, true)).toBe('open')
    expect(openingState(opening, at('2026-12-24T11:15:00Z'), 0, true)).toBe('after')
  })

  it('says what the form says to that, else when', () => {
    expect(tellOpening(opening, 'before')).toBe(
      'Answers are taken from 1 December 2026 at 09:00 (Europe/Berlin).',
    )
    expect(tellOpening({ ...opening, after: 'The slip is closed.' }, 'after')).toBe('The slip is closed.')
  })

  it('has to open before it closes, at moments that there are', () => {
    expect(Opening.safeParse({ opensAt: '2026-12-24T12:00', closesAt: '2026-12-01T09:00' }).success).toBe(
      false,
    )
    expect(Opening.safeParse({ opensAt: '2026-02-30T12:00' }).success).toBe(false)
    expect(Opening.safeParse({ zone: 'Nowhere/Reach' }).success).toBe(false)
  })
})

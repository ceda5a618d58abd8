import { tzOffset } from '@date-fns/tz'
import { z } from 'zod'
import { dayNumber } from '../expressions/dates'
import { Audience } from './audience'
import { LIMITS } from './limits'

/** A moment as somebody writes it in a place: date and time of the day, without a zone. */
const LocalTime = z
  .string()
  .regex(/^\d{4}-\d\d-\d\dT([01]\d|2[0-3]):[0-5]\d$/, 'a moment is written 2026-05-01T09:00')
  .refine(text => dayNumber(text.slice(0, 10)) !== null, 'there is no such day')

/** Stands for every site. */
export const ANYWHERE = '*'

/** A time zone by its name in the tz database. */
const Zone = z.string().max(60).refine(isZone, 'there is no such time zone')

/** A site as it stands before the path of an address (RFC 6454), or any. */
const Origin = z.union([
  z.literal(ANYWHERE),
  z.string().regex(/^https?:\/\/[a-z0-9.-]{1,200}(:\d{1,5})?$/, 'a site is written https://wherry.example'),
])

/** How long whoever sent a response may correct it: never, as long as the form takes responses, or so many days. */
const Corrections = z.union([z.enum(['never', 'open']), z.int().min(1).max(3_650)])

const Words = z.string().trim().max(LIMITS.text).default('')

/**
 * When a form takes responses, and how many: it is no part of the definition, and holds for all releases. Moments are those of clocks in
 * `zone`. `lateBy`: minutes after the closing in which what was begun is still taken. `most`: responses in all, those withdrawn not counted; `audience`: who may answer; `embedOn`: the sites
 * whose pages may show it inside; `corrections`: how long a response can be corrected by whoever sent it;
 * `countsPages`: it is counted, without who it is, how far people come and how long pages take; `needsApproval`: a version is released by somebody else than who asks for it.
 */
export const Opening = z
  .strictObject({
    /** Closed by hand, until it is opened again. */
    isClosed: z.boolean().default(false),
    opensAt: LocalTime.nullable().default(null),
    closesAt: LocalTime.nullable().default(null),
    zone: Zone.default('UTC'),
    lateBy: z.int().min(0).max(1_440).default(15),
    most: z.int().min(1).max(1_000_000).nullable().default(null),
    /** What is said before it opens, while it is closed by hand, afterwards, and when it is full; empty for Tobbin’s own words. */
    before: Words,
    between: Words,
    after: Words,
    full: Words,
    audience: Audience.default(() => Audience.parse({})),
    embedOn: z.array(Origin).max(50).default([]),
    corrections: Corrections.default('never'),
    needsApproval: z.boolean().default(false),
    countsPages: z.boolean().default(true),
  })
  .refine(
    ({ audience: { isAnonymous, each } }) => !isAnonymous || each === null,
    'whoever answers anonymously can’t be counted: set no number of responses for each',
  )
  .refine(
    ({ audience, corrections }) => !audience.isAnonymous || corrections === 'never',
    'what was sent anonymously can’t be corrected: nobody knows whose it is',
  )
  .refine(
    o => o.opensAt === null || o.closesAt === null || o.opensAt < o.closesAt,
    'it has to open before it closes',
  )
export type Opening = z.infer<typeof Opening>

/** Where a form stands: taking responses, or why it takes none. */
export const OPENING_STATES = ['open', 'before', 'between', 'after', 'full'] as const
export type OpeningState = (typeof OPENING_STATES)[number]

/** Whether a name is that of a time zone. */
export function isZone(name: string): boolean {
  return !Number.isNaN(tzOffset(name, new Date(0)))
}

const MINUTE = 60_000

/**
 * The moment at which clocks of a zone show a time. One that they pass over (in spring) is taken by the offset before; of two (in autumn) the
 * first.
 */
export function instantIn(zone: string, local: string): Date {
  const asUtc = Date.parse(`${local}:00Z`)
  // The offset of the day before holds until the clocks are changed.
  const before = asUtc - tzOffset(zone, new Date(asUtc - 1_440 * MINUTE)) * MINUTE
  const offset = tzOffset(zone, new Date(before))
  const after = asUtc - offset * MINUTE
  return new Date(tzOffset(zone, new Date(after)) === offset ? after : before)
}

/**
 * Whether a form takes responses at a moment.
 * @param standing how many responses it has, those withdrawn not counted
 * @param isLate whether the response was begun before: it is taken for some minutes after the closing
 */
export function openingState(opening: Opening, now: Date, standing: number, isLate = false): OpeningState {
  const { isClosed, opensAt, closesAt, zone, lateBy, most } = opening
  const late = (isLate ? lateBy : 0) * MINUTE
  if (closesAt !== null && now.getTime() >= instantIn(zone, closesAt).getTime() + late) return 'after'
  if (isClosed) return 'between'
  if (opensAt !== null && now < instantIn(zone, opensAt)) return 'before'
  return most !== null && standing >= most ? 'full' : 'open'
}

/** Whether a response that was sent may be corrected at a moment. */
export function mayCorrect(opening: Opening, sentAt: Date, now: Date): boolean {
  const { corrections } = opening
  if (corrections === 'never') return false
  if (typeof corrections === 'number') return now.getTime() < sentAt.getTime() + corrections * 1_440 * MINUTE
  return openingState({ ...opening, most: null }, now, 0) === 'open'
}

/** What is said to whoever comes while no responses are taken: the form's own text, else what is known. */
export function tellOpening(opening: Opening, state: Exclude<OpeningState, 'open'>): string {
  return opening[state] || OWN_WORDS[state](opening)
}

const OWN_WORDS: Record<Exclude<OpeningState, 'open'>, (opening: Opening) => string> = {
  before: o =>
    `Answers are taken from ${o.opensAt === null ? 'later on' : momentInWords(o.opensAt, o.zone)}.`,
  between: () => 'No answers are taken at the moment.',
  after: o =>
    o.closesAt === null
      ? 'No more answers are taken.'
      : `Answers were taken until ${momentInWords(o.closesAt, o.zone)}.`,
  full: () => 'As many answers as were looked for have come in; no more are taken.',
}

/** A moment with its time zone: “1 December 2026 at 09:00 (Europe/Berlin)”. */
export function momentInWords(local: string, zone: string): string {
  const [day = '', time = ''] = local.split('T')
  const words = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'UTC' })
  return `${words.format(new Date(`${day}T00:00:00Z`))} at ${time} (${zone})`
}

import { type SQL, sql } from 'drizzle-orm'
import { bigint, boolean, date, index, integer, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { AnyAnswers, KeptPeople } from '../../shared/api/stored'
import { at, id, json, maybeAt } from './columns'
import { trays } from './collectTables'
import { users } from './peopleTables'
import { releases, ways } from './releaseTables'

/** The answers of one respondent, or one chain of parties, to one release: only those in play. */
export const responses = pgTable(
  'responses',
  {
    id: id(),
    releaseId: uuid('release_id')
      .notNull()
      .references(() => releases.id, { onDelete: 'cascade' }),
    /** Made in the browser: the same sending twice is stored once. */
    sendingKey: text('sending_key').notNull(),
    /** What was sent with that key: another sending with it is refused. Null for responses older than this column. */
    sendingDigest: text('sending_digest'),
    begunOn: date('begun_on', { mode: 'string' }).notNull(),
    sentAt: at('sent_at'),
    answers: json('answers', AnyAnswers).notNull(),
    /** The people of teams that it chooses, as they were called then; null for none. */
    people: json('people', KeptPeople),
    /** The code of the turn that is open; null when the response is done, or was withdrawn. */
    turn: text('turn'),
    /** Nothing is left to be answered, but it counts as done only when it is paid. */
    unpaid: boolean('unpaid').notNull().default(false),
    /** Its number among the responses of the form, from 1 on. */
    number: integer('number').notNull(),
    /** By which further way it came, and who was signed in; null for neither, and where the form is anonymous. */
    wayId: uuid('way_id').references(() => ways.id, { onDelete: 'set null' }),
    userId: uuid('user_id').references(() => users.id, { onDelete: 'set null' }),
    /** When whoever sent it has corrected it last. */
    correctedAt: maybeAt('corrected_at'),
    /** When it was taken out of the way before it was done. */
    withdrawnAt: maybeAt('withdrawn_at'),
    /** In which tray it stands. */
    trayId: uuid('tray_id').references(() => trays.id, { onDelete: 'set null' }),
    /** When it was put into the bin, which is emptied of it after some weeks, and the turn that was open then. */
    binnedAt: maybeAt('binned_at'),
    turnBefore: text('turn_before'),
    /** When its personal answers were taken out. */
    strippedAt: maybeAt('stripped_at'),
    /** The transaction that wrote it last: a trigger keeps it, so that whoever has read everything up to one reads only what came after. */
    touchedBy: bigint('touched_by', { mode: 'bigint' })
      .notNull()
      .default(sql`0`),
    /** The words and numbers of its answers and of whom they choose, one on a line, in small letters: what is searched. */
    words: text('words').generatedAlwaysAs((): SQL => sql`words_of(answers, people)`),
  },
  t => [
    uniqueIndex('responses_release_key').on(t.releaseId, t.sendingKey),
    index('responses_sent').on(t.releaseId, t.sentAt),
    index('responses_way').on(t.wayId),
    index('responses_tray').on(t.trayId),
    index('responses_touched').on(t.releaseId, t.touchedBy),
  ],
)

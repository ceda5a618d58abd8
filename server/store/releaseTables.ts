import { sql } from 'drizzle-orm'
import { index, integer, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { Opening } from '../../core/form/opening'
import { LimitedOption } from '../../core/form/places'
import { AcceptedRisk, ApprovalAsked, ProofTally } from '../../shared/api/releases'
import { StoredFinding, StoredForm } from '../../shared/api/stored'
import { at, id, json, maybeAt } from './columns'
import { users } from './peopleTables'
import { forms } from './formTables'

/** A frozen, numbered version of a form that can collect responses under its link. */
export const releases = pgTable(
  'releases',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    /** The revision of the draft that was released; of releases older than this column the last one before it. */
    revision: integer('revision'),
    token: text('token').notNull().unique(),
    definition: json('definition', StoredForm).notNull(),
    findings: json('findings', z.array(StoredFinding)).notNull(),
    accepted: json('accepted', z.array(AcceptedRisk)).notNull(),
    releasedBy: uuid('released_by').references(() => users.id),
    /** Who asked for its approval; null where nobody had to. */
    askedBy: uuid('asked_by').references(() => users.id, { onDelete: 'set null' }),
    /** What whoever released it says to it. */
    note: text('note').notNull().default(''),
    /** What its proof decided, and how; null for releases older than this column. */
    tally: json('tally', ProofTally),
    releasedAt: at('released_at'),
    /** Since when it takes nothing any more, and the form’s own link passes it over. */
    withdrawnAt: maybeAt('withdrawn_at'),
  },
  t => [uniqueIndex('releases_form_number').on(t.formId, t.number)],
)

/** The address of a form, which leads to its newest release, and when it takes responses. */
export const openings = pgTable('openings', {
  formId: uuid('form_id')
    .primaryKey()
    .references(() => forms.id, { onDelete: 'cascade' }),
  token: text('token').notNull().unique(),
  /** The end of its short address, `/s/code`, once one was made. */
  code: text('code').unique(),
  settings: json('settings', Opening).notNull(),
  /** What whoever answers has to know, hashed; null: nothing. */
  passphraseHash: text('passphrase_hash'),
  /** Who asks that a state of the draft is approved; null: nobody does. */
  approval: json('approval', ApprovalAsked),
  /** The options of the newest release that can run out, and how often each is chosen in responses that stand. */
  places: json('places', z.array(LimitedOption)).notNull().default([]),
})

/** Further ways into a form: links with a name, and personal links. */
export const ways = pgTable(
  'ways',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: ['link', 'person'] }).notNull(),
    token: text('token').notNull().unique(),
    /** What the link is called, or the person. */
    name: text('name').notNull(),
    /** The address of the person; empty for other links. */
    address: text('address').notNull().default(''),
    /** What its hidden questions are answered with. */
    values: json('values', z.record(z.string(), z.string())).notNull(),
    /** How many responses it takes at most, and how many of those that came by it stand. */
    most: integer('most'),
    taken: integer('taken').notNull().default(0),
    closedAt: maybeAt('closed_at'),
    madeAt: at('made_at'),
    /** When the link was posted to the person, and when last a reminder. */
    postedAt: maybeAt('posted_at'),
    remindedAt: maybeAt('reminded_at'),
  },
  t => [
    index('ways_form').on(t.formId, t.kind),
    uniqueIndex('ways_address')
      .on(t.formId, t.address)
      .where(sql`address <> ''`),
  ],
)

/** How many responses of somebody who was signed in stand, where a form takes only so many of each. */
export const personCounts = pgTable(
  'person_counts',
  {
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    taken: integer('taken').notNull(),
  },
  t => [primaryKey({ columns: [t.formId, t.userId] })],
)

/** How far people came in a release, and how long each of its sections took: counts alone, of nobody. */
export const pageSteps = pgTable(
  'page_steps',
  {
    releaseId: uuid('release_id')
      .notNull()
      .references(() => releases.id, { onDelete: 'cascade' }),
    /** The code of the section. */
    section: text('section').notNull(),
    reached: integer('reached').notNull().default(0),
    left: integer('went_on').notNull().default(0),
    within15: integer('within_15').notNull().default(0),
    within60: integer('within_60').notNull().default(0),
    within180: integer('within_180').notNull().default(0),
    within600: integer('within_600').notNull().default(0),
    longer: integer('longer').notNull().default(0),
  },
  t => [primaryKey({ columns: [t.releaseId, t.section] })],
)

import { boolean, index, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { Digest, RETENTION_ACTS, ViewSettings } from '../../shared/api/workbench'
import { Tile } from '../../shared/api/dashboards'
import { HOOK_MANNERS, PAYMENT_MANNERS } from '../../shared/api/deliveries'
import { HOOK_EVENTS, KEY_KINDS, KEY_RIGHTS } from '../../shared/api/accessKeys'
import { ResponseFilter } from '../../shared/api/responses'
import { at, id, json, maybeAt } from './columns'
import { forms } from './formTables'
import { users } from './peopleTables'

/** The trays of a form in their order: where its responses stand in the team’s own work. */
export const trays = pgTable(
  'trays',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    name: text('name').notNull(),
    /** Who is told of a response that comes into it: e-mail addresses. */
    tells: json('tells', z.array(z.string())).notNull(),
  },
  t => [index('trays_form').on(t.formId, t.position)],
)

/** Ways of looking at the responses of a form that somebody has kept, for themselves or for everybody who sees them. */
export const views = pgTable(
  'views',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    isShared: boolean('is_shared').notNull().default(false),
    settings: json('settings', ViewSettings).notNull(),
    /** Who is told of what is new in it, and when they were last, or when that was set up. */
    digest: json('digest', Digest),
    digestedAt: maybeAt('digested_at'),
    madeAt: at('made_at'),
  },
  t => [index('views_form').on(t.formId)],
)

/** By what the web hooks of a form are signed, so that who receives one can tell that it comes from here. */
export const hookKeys = pgTable('hook_keys', {
  formId: uuid('form_id')
    .primaryKey()
    .references(() => forms.id, { onDelete: 'cascade' }),
  secret: text('secret').notNull(),
})

/** What the simulated receiver of web hooks has got. */
export const receivedHooks = pgTable(
  'received_hooks',
  {
    id: id(),
    at: at('at'),
    address: text('address').notNull(),
    signature: text('signature').notNull(),
    body: text('body').notNull(),
    /** What it answered: an HTTP status; 0 for nothing. */
    answered: integer('answered').notNull(),
  },
  t => [index('received_hooks_at').on(t.at)],
)

/** How the simulated outside world behaves. */
export const outsideWorld = pgTable('outside_world', {
  id: boolean('id').primaryKey().default(true),
  hooks: text('hooks', { enum: HOOK_MANNERS }).notNull().default('takes'),
  payments: text('payments', { enum: PAYMENT_MANNERS }).notNull().default('takes'),
  /** Addresses, or what stands after their “@”, at which letters come back. */
  bounces: json('bounces', z.array(z.string())).notNull().default([]),
})

/** What opens the responses of a form to other programs: addresses of a live table, and keys of the API. Only what is made of the secret is kept. */
export const accessKeys = pgTable(
  'access_keys',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: KEY_KINDS }).notNull(),
    name: text('name').notNull(),
    hash: text('hash').notNull().unique(),
    /** What an API key allows; none for a live address. */
    rights: json('rights', z.array(z.enum(KEY_RIGHTS))).notNull(),
    /** Which responses a live address shows. */
    filter: json('filter', ResponseFilter).notNull(),
    /** The columns of a live address in the order in which they came up: they only ever grow at the end. */
    columns: json('columns', z.array(z.string())).notNull().default([]),
    userId: uuid('user_id').references(() => users.id, { onDelete: 'set null' }),
    madeAt: at('made_at'),
    usedAt: maybeAt('used_at'),
    uses: integer('uses').notNull().default(0),
  },
  t => [index('access_keys_form').on(t.formId)],
)

/** How long the responses of a form are kept. */
export const retentions = pgTable('retentions', {
  formId: uuid('form_id')
    .primaryKey()
    .references(() => forms.id, { onDelete: 'cascade' }),
  months: integer('months').notNull(),
  act: text('act', { enum: RETENTION_ACTS }).notNull(),
})

/** The web hooks that programs have asked for, each with a key: they end with it. */
export const programHooks = pgTable(
  'program_hooks',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    keyId: uuid('key_id')
      .notNull()
      .references(() => accessKeys.id, { onDelete: 'cascade' }),
    on: text('on', { enum: HOOK_EVENTS }).notNull(),
    address: text('address').notNull(),
    madeAt: at('made_at'),
  },
  t => [index('program_hooks_form').on(t.formId), index('program_hooks_key').on(t.keyId)],
)

/** Chosen figures of one form or several that somebody has kept, for themselves or for whoever may see them. */
export const dashboards = pgTable(
  'dashboards',
  {
    id: id(),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    isShared: boolean('is_shared').notNull().default(false),
    tiles: json('tiles', z.array(Tile)).notNull(),
    madeAt: at('made_at'),
  },
  t => [index('dashboards_user').on(t.userId)],
)

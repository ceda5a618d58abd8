import { boolean, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { Look } from '../../core/form/look'
import { ROLES } from '../../shared/api/people'
import { at, id, json, maybeAt } from './columns'

/** The people of the workspace. */
export const users = pgTable('users', {
  id: id(),
  email: text('email').notNull().unique(),
  name: text('name').notNull(),
  /** Null until somebody who was invited chose a password. */
  passwordHash: text('password_hash'),
  role: text('role', { enum: ROLES }).notNull().default('maker'),
  suspendedAt: maybeAt('suspended_at'),
  /** The shared secret of the second factor, sealed; null: there is none. */
  totpSecret: text('totp_secret'),
  /** The secret counts only once a code of it was given. */
  totpConfirmed: boolean('totp_confirmed').notNull().default(false),
  /** The time step of the code that was used last: no code counts twice. */
  totpStep: integer('totp_step'),
  createdAt: at('created_at'),
})

/** What the workspace says of itself; one row. */
export const workspace = pgTable('workspace', {
  id: integer('id').primaryKey().default(1),
  name: text('name').notNull().default(''),
  address: text('address').notNull().default(''),
})

/** Looks that the workspace keeps for its forms, by name. */
export const looks = pgTable('looks', {
  name: text('name').primaryKey(),
  look: json('look', Look).notNull(),
})

/** Browsers that are signed in; of the token only its digest is kept. */
export const sessions = pgTable(
  'sessions',
  {
    id: id(),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    tokenHash: text('token_hash').notNull().unique(),
    openedAt: at('opened_at'),
    seenAt: at('seen_at'),
    /** From which address, and what the browser says that it is. */
    source: text('source').notNull(),
    agent: text('agent').notNull(),
  },
  t => [index('sessions_user').on(t.userId)],
)

/** One-time keys that were posted or printed: to choose a first password, another one, or to set Tobbin up. */
export const oneTimeKeys = pgTable('one_time_keys', {
  id: id(),
  kind: text('kind', { enum: ['setup', 'invite', 'reset'] }).notNull(),
  userId: uuid('user_id').references(() => users.id, { onDelete: 'cascade' }),
  tokenHash: text('token_hash').notNull().unique(),
  expiresAt: at('expires_at'),
})

/** How often something was tried since the beginning of a span of time. */
export const tallies = pgTable('tallies', {
  key: text('key').primaryKey(),
  number: integer('number').notNull(),
  since: at('since'),
})

export const teams = pgTable('teams', {
  id: id(),
  name: text('name').notNull().unique(),
  /** What it was called before: forms that were released then know it so. */
  formerNames: json('former_names', z.array(z.string())).notNull().default([]),
  createdAt: at('created_at'),
})

export const teamMembers = pgTable(
  'team_members',
  {
    teamId: uuid('team_id')
      .notNull()
      .references(() => teams.id, { onDelete: 'cascade' }),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
  },
  t => [primaryKey({ columns: [t.teamId, t.userId] }), index('team_members_user').on(t.userId)],
)

/** What happened in the workspace: who, when, what; never an answer or a secret. It outlives whom and what it speaks of. */
export const record = pgTable(
  'record',
  {
    id: id(),
    at: at('at'),
    userId: uuid('user_id'),
    /** The name as it was; what was typed at sign-in is not kept. */
    who: text('who').notNull(),
    source: text('source').notNull(),
    act: text('act').notNull(),
    formId: uuid('form_id'),
    /** What it was done to, in a few words. */
    about: text('about').notNull(),
    details: json('details', z.record(z.string(), z.string())).notNull(),
  },
  t => [index('record_at').on(t.at, t.id)],
)

import { index, integer, pgTable, primaryKey, text, timestamp, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { Right } from '../../shared/api/sharing'
import { StoredEdits, StoredForm, StoredList } from '../../shared/api/stored'
import { OUTCOMES, StoredProposal } from '../../shared/api/suggestions'
import { at, id, json, maybeAt } from './columns'
import { teams, users } from './peopleTables'

/** A form with its draft; `revision` counts the saves. */
export const forms = pgTable('forms', {
  id: id(),
  title: text('title').notNull(),
  draft: json('draft', StoredForm).notNull(),
  /** The draft as it was when the form was made: every later state follows from it by the changes. Null for forms older than this column. */
  begun: json('begun', StoredForm),
  revision: integer('revision').notNull().default(0),
  createdAt: at('created_at'),
  savedAt: at('saved_at'),
  /** Words by which it is found among many. */
  tags: json('tags', z.array(z.string())).notNull().default([]),
  /** Since when it is put away; null: it stands among the forms that are worked on. */
  archivedAt: timestamp('archived_at', { withTimezone: true, mode: 'date' }),
})

/** What a person or a team may do with a form; who is in none of the rows may nothing. */
export const formRights = pgTable(
  'form_rights',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    userId: uuid('user_id').references(() => users.id, { onDelete: 'cascade' }),
    teamId: uuid('team_id').references(() => teams.id, { onDelete: 'cascade' }),
    rights: json('rights', z.array(Right)).notNull(),
  },
  t => [
    uniqueIndex('form_rights_user').on(t.formId, t.userId),
    uniqueIndex('form_rights_team').on(t.formId, t.teamId),
    index('form_rights_of_user').on(t.userId),
  ],
)

/** Choice lists that the workspace keeps for all forms; drafts hold a copy that follows, releases the rows of their time. */
export const sharedLists = pgTable('shared_lists', {
  id: id(),
  code: text('code').notNull().unique(),
  title: text('title').notNull(),
  list: json('list', StoredList).notNull(),
  rowCount: integer('row_count').notNull(),
  revision: integer('revision').notNull().default(1),
  savedBy: uuid('saved_by').references(() => users.id),
  savedAt: at('saved_at'),
})

/** Every save of a draft, with who made it and when: from the first on, any state can be built again. */
export const changes = pgTable(
  'changes',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    userId: uuid('user_id').references(() => users.id),
    edits: json('edits', StoredEdits).notNull(),
    at: at('at'),
  },
  t => [uniqueIndex('changes_form_revision').on(t.formId, t.revision)],
)

/** Remarks on drafts, and changes proposed for them: open until somebody decides. */
export const suggestions = pgTable(
  'suggestions',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    userId: uuid('user_id').references(() => users.id),
    at: at('at'),
    /** The row that a remark is about; null: the form, or what the edits say. */
    about: text('about'),
    note: text('note').notNull(),
    /** Null for remarks. */
    proposal: json('proposal', StoredProposal),
    outcome: text('outcome', { enum: OUTCOMES }),
    reply: text('reply').notNull().default(''),
    decidedBy: uuid('decided_by').references(() => users.id),
    decidedAt: maybeAt('decided_at'),
  },
  t => [index('suggestions_form').on(t.formId, t.outcome)],
)

/** Risks of drafts that somebody accepted, by finding: one comes back when what it rests on changes. */
export const acceptances = pgTable(
  'acceptances',
  {
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    key: text('key').notNull(),
    basis: text('basis').notNull(),
    reason: text('reason').notNull(),
    by: text('by').notNull(),
    at: at('at'),
  },
  t => [primaryKey({ columns: [t.formId, t.key] })],
)

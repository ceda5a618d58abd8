import { boolean, index, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { ViewSettings } from '../../shared/api/workbench'
import { at, id, json } from './columns'
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
    madeAt: at('made_at'),
  },
  t => [index('views_form').on(t.formId)],
)

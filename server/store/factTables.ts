import { bigint, index, integer, pgSchema, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { at, bytes } from './columns'
import { forms } from './formTables'

/** What can be worked out anew from all else stands in a schema of its own: it is in no backup. */
export const derived = pgSchema('derived')

/**
 * What the responses of a form hold, as it was kept last for figures: which set of pieces stands, from what it was made, and up to which
 * transaction. `cleared`: how often something was taken out for good: triggers count it, and take all pieces away with it.
 */
export const factSets = derived.table('fact_sets', {
  formId: uuid('form_id')
    .primaryKey()
    .references(() => forms.id, { onDelete: 'cascade' }),
  cleared: integer('cleared').notNull().default(0),
  setId: uuid('set_id'),
  madeFrom: text('made_from').notNull().default(''),
  upTo: bigint('up_to', { mode: 'bigint' }),
})

/** A piece of a set: the column of a measure, or, with no key, the rows. */
export const factPieces = derived.table(
  'fact_pieces',
  {
    formId: uuid('form_id')
      .notNull()
      .references(() => factSets.formId, { onDelete: 'cascade' }),
    setId: uuid('set_id').notNull(),
    key: text('key').notNull(),
    bytes: bytes('bytes').notNull(),
    writtenAt: at('written_at'),
  },
  t => [primaryKey({ columns: [t.setId, t.key] }), index('fact_pieces_form').on(t.formId)],
)

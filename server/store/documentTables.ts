import { index, integer, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { at, bytes, id, json, maybeAt } from './columns'
import { forms } from './formTables'
import { users } from './peopleTables'
import { responses } from './responseTables'

const Ids = z.array(z.string())

/** Files that were brought in as templates of a form: as they came, for good, since releases name them. */
export const templates = pgTable(
  'templates',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    content: bytes('content').notNull(),
    userId: uuid('user_id').references(() => users.id, { onDelete: 'set null' }),
    madeAt: at('made_at'),
  },
  t => [index('templates_form').on(t.formId)],
)

/** Documents that were made of responses, each as it was made. */
export const documents = pgTable(
  'documents',
  {
    id: id(),
    responseId: uuid('response_id')
      .notNull()
      .references(() => responses.id, { onDelete: 'cascade' }),
    /** The code of the document in its form, and its number among those of the response. */
    code: text('code').notNull(),
    version: integer('version').notNull(),
    name: text('name').notNull(),
    content: bytes('content').notNull(),
    bytes: integer('bytes').notNull(),
    /** SHA-256 of what it says, without the page that tells of signatures: the same is not kept twice. */
    digest: text('digest').notNull(),
    /** Of a document that is signed: what it is without that page, a digest of the answers of which it tells, and of which signatures the page tells, by their ids. */
    unsigned: bytes('unsigned'),
    told: text('told'),
    signed: json('signed', Ids).notNull().default([]),
    /** As a PDF file whose pages are those of its template, once it was asked for. */
    pdf: bytes('pdf'),
    madeAt: at('made_at'),
  },
  t => [uniqueIndex('documents_version').on(t.responseId, t.code, t.version)],
)

/** Who has signed which document in which turn (empty in a form without turns). It stands until the turn is opened again. */
export const signatures = pgTable(
  'signatures',
  {
    id: id(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    turn: text('turn').notNull(),
    name: text('name').notNull(),
    role: text('role').notNull(),
    place: text('place').notNull(),
    /** The signature as it was drawn; null where the name stands for it. */
    drawn: text('drawn'),
    /** Who had the link, as far as that is known. */
    who: text('who').notNull(),
    signedAt: at('signed_at'),
    voidedAt: maybeAt('voided_at'),
  },
  t => [index('signatures_document').on(t.documentId)],
)

/** The SHA-256 of every file that was given out of a signed document, and of which signatures it tells: by it a file is known again. */
export const sealedFiles = pgTable(
  'sealed_files',
  {
    hash: text('hash').primaryKey(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    signed: json('signed', Ids).notNull(),
    madeAt: at('made_at'),
  },
  t => [index('sealed_files_document').on(t.documentId)],
)

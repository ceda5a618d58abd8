import { sql } from 'drizzle-orm'
import { date, index, integer, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { PAYMENT_STATES } from '../../core/form/payment'
import { RUN_STATES } from '../../shared/api/deliveries'
import { Attachment, LETTER_STATES } from '../../shared/api/letters'
import { KeptAnswers } from '../../shared/api/keptAnswers'
import { AnyAnswers } from '../../shared/api/stored'
import { EVENT_KINDS, EventDetails } from '../../shared/api/storedEvents'
import { at, bytes, id, json, maybeAt } from './columns'
import { forms } from './formTables'
import { releases } from './releaseTables'
import { responses } from './responseTables'

export * from './formTables'
export * from './peopleTables'
export * from './releaseTables'
export * from './collectTables'
export * from './responseTables'
export * from './documentTables'
export * from './factTables'

/** What is to be paid for a response, or was. Its id stands in the address at which it is paid. */
export const payments = pgTable(
  'payments',
  {
    id: id(),
    responseId: uuid('response_id')
      .notNull()
      .unique()
      .references(() => responses.id, { onDelete: 'cascade' }),
    /** A decimal number as text, in its currency. */
    amount: text('amount').notNull(),
    currency: text('currency').notNull(),
    title: text('title').notNull(),
    state: text('state', { enum: PAYMENT_STATES }).notNull().default('open'),
    changedAt: at('changed_at'),
  },
  t => [index('payments_changed').on(t.changedAt)],
)

/** The links by which those who sent responses come back to them; only what is made of a link is kept. */
export const ownLinks = pgTable(
  'own_links',
  {
    id: id(),
    responseId: uuid('response_id')
      .notNull()
      .references(() => responses.id, { onDelete: 'cascade' }),
    hash: text('hash').notNull().unique(),
    madeAt: at('made_at'),
  },
  t => [index('own_links_response').on(t.responseId)],
)

/** Answers that somebody has asked to have kept, to go on with them on another device; only what is made of the secret is kept. */
export const keptAnswers = pgTable(
  'kept_answers',
  {
    id: id(),
    releaseId: uuid('release_id')
      .notNull()
      .references(() => releases.id, { onDelete: 'cascade' }),
    hash: text('hash').notNull().unique(),
    /** The key of the sending that they are to become. */
    sendingKey: text('sending_key').notNull(),
    kept: json('kept', KeptAnswers).notNull(),
    savedAt: at('saved_at'),
  },
  t => [
    index('kept_answers_sending').on(t.releaseId, t.sendingKey),
    index('kept_answers_saved').on(t.savedAt),
  ],
)

/** How many responses a form has taken, which is the last number given, and how many of them stand: those withdrawn don’t. */
export const responseCounts = pgTable('response_counts', {
  formId: uuid('form_id')
    .primaryKey()
    .references(() => forms.id, { onDelete: 'cascade' }),
  taken: integer('taken').notNull(),
  standing: integer('standing').notNull().default(0),
})

/** The turns of a response in the order in which they were opened. */
export const turns = pgTable(
  'turns',
  {
    id: id(),
    responseId: uuid('response_id')
      .notNull()
      .references(() => responses.id, { onDelete: 'cascade' }),
    turn: text('turn').notNull(),
    /** Who is to act: e-mail addresses; empty for whoever has the link. */
    to: json('to', z.array(z.string())).notNull(),
    openedAt: at('opened_at'),
    /** The day by which it is to be handed on. */
    dueOn: date('due_on', { mode: 'string' }),
    /** How many of the notices about it were posted, and on which day the next one is; null for none. */
    notices: integer('notices').notNull().default(0),
    noticeOn: date('notice_on', { mode: 'string' }),
    handedOffAt: timestamp('handed_off_at', { withTimezone: true, mode: 'date' }),
    /** When the response went back to an earlier turn; the turn keeps its link, and is opened again when it is reached. */
    givenBackAt: timestamp('given_back_at', { withTimezone: true, mode: 'date' }),
    /** What a later party said when it gave the response back to this turn, and the questions that it pointed at. */
    remark: text('remark'),
    pointed: json('pointed', z.array(z.string())),
    /** What its party has typed so far, not handed off: when it was kept, from which page, and under which key its files are. */
    draft: json('draft', AnyAnswers),
    draftAt: timestamp('draft_at', { withTimezone: true, mode: 'date' }),
    draftSeat: text('draft_seat'),
    draftKey: text('draft_key'),
    /** Who typed it, as far as it is known: a name or an address. */
    draftBy: text('draft_by'),
    /** The sending by which it was handed off: the same once more gets the same answer. */
    sendingKey: text('sending_key'),
    sendingDigest: text('sending_digest'),
    /** The turn that it was handed off to; null when the response was done. */
    nextTurn: text('next_turn'),
  },
  t => [
    index('turns_response').on(t.responseId, t.openedAt),
    index('turns_notice').on(t.noticeOn),
    index('turns_to').using('gin', t.to),
  ],
)

/** The private links of turns: only what is made of a link is kept, so that nobody who reads the store can use one. */
export const turnLinks = pgTable(
  'turn_links',
  {
    id: id(),
    turnId: uuid('turn_id')
      .notNull()
      .references(() => turns.id, { onDelete: 'cascade' }),
    hash: text('hash').notNull().unique(),
    /** To whom it was posted; null for one that was made to be copied. */
    address: text('address'),
    madeAt: at('made_at'),
    expiresAt: maybeAt('expires_at'),
    revokedAt: maybeAt('revoked_at'),
  },
  t => [index('turn_links_turn').on(t.turnId)],
)

/** What happened to a response, in order: who did it, in which turn, and what it changed. */
export const responseEvents = pgTable(
  'response_events',
  {
    id: id(),
    responseId: uuid('response_id')
      .notNull()
      .references(() => responses.id, { onDelete: 'cascade' }),
    at: at('at'),
    kind: text('kind', { enum: EVENT_KINDS }).notNull(),
    /** The code of the turn that it happened in. */
    turn: text('turn').notNull(),
    /** Who did it: a name or an address; empty for whoever had the link, and for what Tobbin does by itself. */
    who: text('who').notNull().default(''),
    details: json('details', EventDetails).notNull(),
  },
  t => [index('response_events_response').on(t.responseId, t.at)],
)

/** What goes out as e-mail: by a mail server, or by the simulated post of the application. */
export const messages = pgTable(
  'messages',
  {
    id: id(),
    responseId: uuid('response_id').references(() => responses.id, { onDelete: 'cascade' }),
    to: text('to').notNull(),
    subject: text('subject').notNull(),
    text: text('text').notNull(),
    at: at('at'),
    attachments: json('attachments', z.array(Attachment)).notNull().default([]),
    state: text('state', { enum: LETTER_STATES }).notNull().default('sent'),
    /** When it is tried next, how often it was, and what was said then. */
    dueAt: at('due_at'),
    tries: integer('tries').notNull().default(0),
    said: text('said').notNull().default(''),
  },
  t => [
    index('messages_at').on(t.at),
    index('messages_response').on(t.responseId),
    index('messages_due')
      .on(t.dueAt)
      .where(sql`state = 'waiting'`),
  ],
)

/** Files that respondents gave, kept apart from the answers: these hold the id and the name. Unclaimed ones are cleared after some days. */
export const files = pgTable(
  'files',
  {
    id: id(),
    releaseId: uuid('release_id')
      .notNull()
      .references(() => releases.id, { onDelete: 'cascade' }),
    /** The sending that it was given for, before and after it is sent. */
    sendingKey: text('sending_key').notNull(),
    responseId: uuid('response_id').references(() => responses.id, { onDelete: 'cascade' }),
    question: text('question').notNull(),
    name: text('name').notNull(),
    mediaType: text('media_type').notNull(),
    size: integer('size').notNull(),
    /** Of files from before they stood beside the database; null: see `fileFolder`. */
    content: bytes('content'),
    at: at('at'),
  },
  t => [index('files_sending').on(t.releaseId, t.sendingKey)],
)

/** What is done by itself for responses: what is waiting, what was done, and what could not be. */
export const deliveryRuns = pgTable(
  'delivery_runs',
  {
    id: id(),
    formId: uuid('form_id')
      .notNull()
      .references(() => forms.id, { onDelete: 'cascade' }),
    responseId: uuid('response_id')
      .notNull()
      .references(() => responses.id, { onDelete: 'cascade' }),
    /** The code of the delivery in the release of the response, and what it was called. */
    delivery: text('delivery').notNull(),
    title: text('title').notNull(),
    /** How many deliveries have set each other off before this one. */
    depth: integer('depth').notNull().default(0),
    state: text('state', { enum: RUN_STATES }).notNull().default('waiting'),
    /** When it is tried next, and how often it was. */
    dueAt: at('due_at'),
    tries: integer('tries').notNull().default(0),
    /** What came of the last try. */
    said: text('said').notNull().default(''),
    madeAt: at('made_at'),
    doneAt: maybeAt('done_at'),
  },
  t => [
    index('delivery_runs_due').on(t.state, t.dueAt),
    index('delivery_runs_form').on(t.formId, t.madeAt),
    index('delivery_runs_response').on(t.responseId),
  ],
)

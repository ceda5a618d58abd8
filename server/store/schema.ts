import { type SQL, sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  date,
  index,
  integer,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { PAYMENT_STATES } from '../../core/form/payment'
import { RUN_STATES } from '../../shared/api/deliveries'
import { Attachment, LETTER_STATES } from '../../shared/api/letters'
import { KeptAnswers } from '../../shared/api/keptAnswers'
import { AnyAnswers, KeptPeople } from '../../shared/api/stored'
import { EVENT_KINDS, EventDetails } from '../../shared/api/storedEvents'
import { at, bytes, id, json, maybeAt } from './columns'
import { users } from './peopleTables'
import { forms } from './formTables'
import { releases, ways } from './releaseTables'
import { trays } from './collectTables'

export * from './formTables'
export * from './peopleTables'
export * from './releaseTables'
export * from './collectTables'

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
    /** SHA-256 of the content: the same is not kept twice. */
    digest: text('digest').notNull(),
    /** As a PDF file whose pages are those of its template, once it was asked for. */
    pdf: bytes('pdf'),
    madeAt: at('made_at'),
  },
  t => [uniqueIndex('documents_version').on(t.responseId, t.code, t.version)],
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

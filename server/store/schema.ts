import {
  date,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { z } from 'zod'
import { Opening } from '../../core/form/opening'
import { LimitedOption } from '../../core/form/places'
import { AcceptedRisk } from '../../shared/api/releases'
import { Right } from '../../shared/api/sharing'
import {
  AnyAnswers,
  KeptPeople,
  StoredEdits,
  StoredFinding,
  StoredForm,
  StoredList,
} from '../../shared/api/stored'
import { EVENT_KINDS, EventDetails } from '../../shared/api/storedEvents'
import { OUTCOMES, StoredProposal } from '../../shared/api/suggestions'
import { at, bytes, id, json, maybeAt } from './columns'
import { teams, users } from './peopleTables'

export * from './peopleTables'

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
  settings: json('settings', Opening).notNull(),
  /** The options of the newest release that can run out, and how often each is chosen in responses that stand. */
  places: json('places', z.array(LimitedOption)).notNull().default([]),
})

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
    /** Its number among the responses of the form, from 1 on. */
    number: integer('number').notNull(),
    /** When it was taken out of the way before it was done. */
    withdrawnAt: maybeAt('withdrawn_at'),
  },
  t => [
    uniqueIndex('responses_release_key').on(t.releaseId, t.sendingKey),
    index('responses_sent').on(t.releaseId, t.sentAt),
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

/** What would go out as e-mail: the simulated post of the application. */
export const messages = pgTable(
  'messages',
  {
    id: id(),
    responseId: uuid('response_id').references(() => responses.id, { onDelete: 'cascade' }),
    to: text('to').notNull(),
    subject: text('subject').notNull(),
    text: text('text').notNull(),
    at: at('at'),
  },
  t => [index('messages_at').on(t.at)],
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

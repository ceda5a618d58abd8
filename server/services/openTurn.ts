import { isDeepStrictEqual } from 'node:util'
import { and, desc, eq, isNotNull, ne } from 'drizzle-orm'
import type { Filled } from '../../core/fill/fill'
import { openedWith } from '../../core/form/alongside'
import type { Turn } from '../../core/form/turns'
import { findActors } from '../../core/parties/actors'
import { dueDay, listNotices } from '../../core/parties/dueDays'
import { nextTurn, turnName } from '../../core/parties/turns'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import type { LinkTarget } from './links'
import { addressesOfTeams } from './teamRows'
import { makeLink, revokeLinks } from './turnLinks'

type TurnRow = typeof turns.$inferSelect
type Release = LinkTarget['release']

/**
 * Opens the next turn, if there is one, with those that are open at once with it, and tells whoever is to act.
 * @param turn the one that was handed on; of several that were open at once any: the last of them is handed on now
 * @returns the turn that leads
 */
export async function openNextTurn(
  db: Database,
  release: Release,
  filled: Filled,
  turn: Turn,
  responseId: string,
): Promise<Turn | null> {
  const form = release.definition
  const next = nextTurn(filled, openedWith(form, turn).at(-1) ?? turn)
  if (!next) return null
  for (const opened of openedWith(form, next)) {
    const row = await openTurn(db, release, filled, opened, responseId)
    await postTurn(db, release, opened, row, { subject: '', text: 'It is your turn' })
  }
  return next
}

/** The addresses of those who are to act in a turn. */
export async function whoIsToAct(
  db: Database,
  release: Release,
  filled: Filled,
  turn: Turn,
): Promise<string[]> {
  const { by } = turn
  const isTeam = typeof by === 'object' && 'people' in by
  const teams = isTeam ? await addressesOfTeams(db, [by.people]) : new Map<string, string[]>()
  const inRound = typeof by === 'object' && 'rotate' in by && by.rotate === true
  const before = inRound ? await whoHadItLast(db, release.formId, turn.code) : []
  return findActors(turn, { filled, teams, before })
}

/** Who had a turn of a form last, of any response. */
async function whoHadItLast(db: Database, formId: string, code: string): Promise<string[]> {
  const [last] = await db
    .select({ to: turns.to })
    .from(turns)
    .innerJoin(responses, eq(turns.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, formId), eq(turns.turn, code), ne(turns.to, [])))
    .orderBy(desc(turns.openedAt))
    .limit(1)
  return last?.to ?? []
}

/** When a turn that is opened today is due, and when the first notice about it is posted. */
export function datesOf(turn: Turn, today = isoToday()): Pick<TurnRow, 'dueOn' | 'notices' | 'noticeOn'> {
  const dueOn = turn.due ? dueDay(today, turn.due) : null
  const [first] = listNotices(turn, dueOn)
  return { dueOn, notices: 0, noticeOn: first?.on ?? null }
}

/** Opens a turn: once more that which was given back, with its links and for whoever had it; else a new one. */
async function openTurn(
  db: Database,
  release: Release,
  filled: Filled,
  turn: Turn,
  responseId: string,
): Promise<TurnRow> {
  const isGivenBack = and(
    eq(turns.responseId, responseId),
    eq(turns.turn, turn.code),
    isNotNull(turns.givenBackAt),
  )
  const [again] = await db.select().from(turns).where(isGivenBack).orderBy(desc(turns.openedAt)).limit(1)
  const dates = datesOf(turn)
  // Whom an answer names may be another now; all else was decided when it was opened first, or since on the board.
  const isNamed = typeof turn.by === 'object' && 'answer' in turn.by
  const to = again && !isNamed ? again.to : await whoIsToAct(db, release, filled, turn)
  if (again && !isDeepStrictEqual(again.to, to)) await revokeLinks(db, again.id)
  const [row] = again
    ? await db
        .update(turns)
        .set({
          givenBackAt: null,
          handedOffAt: null,
          remark: null,
          pointed: null,
          to,
          openedAt: new Date(),
          ...dates,
        })
        .where(eq(turns.id, again.id))
        .returning()
    : await db
        .insert(turns)
        .values({ responseId, turn: turn.code, to, ...dates })
        .returning()
  if (!row) throw new Error('A turn that was stored did not come back.')
  return row
}

/** What a letter about a turn says in front of the link: `subject` after the form's title, the turn's name where it is empty. */
interface Wording {
  subject: string
  text: string
}

/** Posts a letter to everybody who is to act in a turn, each with a link of their own; with the turn's address where they are to sign in. */
export async function postTurn(
  db: Database,
  { definition }: Pick<Release, 'definition'>,
  turn: Turn,
  row: Pick<TurnRow, 'id' | 'responseId' | 'to' | 'dueOn'>,
  { subject, text }: Wording,
): Promise<void> {
  const name = turnName(definition, turn)
  const due = row.dueOn === null ? '' : ` It is due on ${row.dueOn}.`
  for (const to of row.to) {
    const link = turn.signIn ? `/f/${row.id}` : await makeLink(db, row.id, turn, to)
    const going = turn.signIn ? `Sign in and open ${link} to go on.` : `Open ${link} to go on.`
    await sendMail(db, [
      {
        responseId: row.responseId,
        to,
        subject: `${definition.title}: ${subject || name}`,
        text: `${text}: ${name}.${due} ${going}`,
      },
    ])
  }
}

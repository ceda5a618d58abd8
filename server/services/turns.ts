import { randomBytes } from 'node:crypto'
import { and, asc, desc, eq, isNotNull } from 'drizzle-orm'
import type { Answers } from '../../core/form/answers'
import { answersInPlay, fill, offeredNow, type Filled, type Frame } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { type Plan, type PlannedGroup } from '../../core/fill/planned'
import { describeResponse } from '../../core/fill/describeResponse'
import type { Turn } from '../../core/form/turns'
import { publicRow, searchRows } from '../../core/lists/searchRows'
import { mayFill, accessViewOf } from '../../core/parties/access'
import { redactForParty } from '../../core/parties/redact'
import { filledBy, nextTurn, turnName, turnOf, turnProblems, withTurn } from '../../core/parties/turns'
import type { RowSearch, Sending } from '../../shared/api'
import { refuse } from '../http/route'
import { post } from '../stand-ins/post'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { claimFiles, filesIn } from './files'
import { openingBy, type Opening } from './openings'
import { todayText } from './releases'

/** Everything that a page needs to be filled: only what the party of the turn may see leaves the server. */
export async function pageOf(db: Database, token: string) {
  const opening = await openingBy(db, token)
  const { release, plan, turn, row, response } = opening
  const begunOn = response?.begunOn ?? todayText()
  const seen = redactForParty(fill(plan, response?.answers ?? {}, begunOn), turn, response?.answers ?? {})
  const page = {
    release: release.number,
    definition: seen.form,
    today: begunOn,
    answers: seen.answers,
    access: seen.access,
    asks: seen.asks,
    turn: null,
  }
  if (!turn) return page
  const isOpen = row === null || (row.handedOffAt === null && response?.turn === turn.code)
  const before = response ? await turnBefore(db, opening) : null
  return {
    ...page,
    turn: {
      name: turnName(release.definition, turn),
      isFirst: response === null,
      handedOffAt: isOpen ? null : (row.handedOffAt ?? row.openedAt).toISOString(),
      remark: row?.remark ?? null,
      returnsTo: before ? turnName(release.definition, before.turn) : null,
      lines: isOpen ? [] : describeResponse(planOf(seen.form), seen.answers, begunOn),
    },
  }
}

/** The same cut for other answers of this turn: what the party's page asks for when an outcome over hidden answers may have changed. */
export async function cutAgain(db: Database, token: string, sending: Pick<Sending, 'answers' | 'begunOn'>) {
  const { plan, turn, row, response } = await openingBy(db, token)
  if (row?.handedOffAt) refuse(409, 'handed-off', 'This turn has been handed off already.')
  const begunOn = response?.begunOn ?? sending.begunOn
  const { answers } = withTurn(plan, turn, response?.answers ?? {}, sending.answers)
  const { form, access, asks } = redactForParty(fill(plan, answers, begunOn), turn, answers)
  return { definition: form, access, asks }
}

async function turnBefore(db: Database, { row, release, response }: Opening) {
  if (!row || !response) return null
  const rows = await db
    .select()
    .from(turns)
    .where(and(eq(turns.responseId, response.id), isNotNull(turns.handedOffAt)))
    .orderBy(desc(turns.handedOffAt))
    .limit(20)
  const before = rows.find(r => r.id !== row.id && r.turn !== row.turn)
  const turn = before ? turnOf(release.definition, before.turn) : null
  return before && turn ? { row: before, turn } : null
}

/** Takes the answers of a later turn and hands the response on. */
export async function handOff(
  db: Database,
  token: string,
  sending: Sending,
): Promise<{ sentAt: string; next: string | null }> {
  return db.transaction(async tx => {
    const { plan, turn, row, response, release } = await openingBy(tx, token, true)
    if (!turn || !row || !response) return refuse(404, 'not-found', 'There is no such turn.')
    if (row.handedOffAt !== null || response.turn !== turn.code)
      refuse(409, 'handed-off', 'This turn has been handed off already; nothing was changed.')
    if (release.number !== sending.release)
      refuse(
        409,
        'outdated',
        'This page is of another version of the form. Reload it; what you typed is kept.',
      )
    const filled = taken(plan, turn, response.answers, sending.answers, response.begunOn)
    const before = new Set(filesIn(fill(plan, response.answers, response.begunOn)))
    await claimFiles(
      tx,
      release.id,
      sending.key,
      response.id,
      filesIn(filled).filter(id => !before.has(id)),
    )
    const now = new Date()
    await tx.update(turns).set({ handedOffAt: now, remark: null }).where(eq(turns.id, row.id))
    const next = await passOn(tx, release, filled, turn, response.id)
    await tx
      .update(responses)
      .set({ answers: keptBy(filled, turn, response.answers), turn: next?.code ?? null, sentAt: now })
      .where(eq(responses.id, response.id))
    return { sentAt: now.toISOString(), next: next ? turnName(release.definition, next) : null }
  })
}

/** A response with what a turn gives: refused with every problem where it may not give it, or where something is missing. */
export function taken(
  plan: Plan,
  turn: Turn | null,
  stored: Answers,
  given: Answers,
  begunOn: string,
): Filled {
  const { answers, foreign } = withTurn(plan, turn, stored, given)
  if (foreign.length > 0)
    refuse(
      422,
      'unknown-question',
      'The response answers questions that this form does not have; nothing was stored.',
      foreign.map(code => ({ path: code, sentence: `There is no question “${code}” to be answered here.` })),
    )
  const filled = fill(plan, answers, begunOn)
  const problems = turnProblems(filled, turn)
  if (problems.length > 0)
    refuse(
      422,
      'wrong-answers',
      'Some answers don’t fit; nothing was stored.',
      problems.map(p => ({ path: p.path, sentence: p.sentence })),
    )
  return filled
}

/** What is stored after a turn: what is in play of its own answers and of those before. Defaults of later turns stay open. */
export function keptBy(filled: Filled, turn: Turn | null, stored: Answers): Answers {
  const own = filledBy(filled.plan, turn)
  return Object.fromEntries(
    Object.entries(answersInPlay(filled)).filter(([code]) => own.has(code) || Object.hasOwn(stored, code)),
  )
}

/** Opens the next turn, if there is one, and tells whoever is to act. */
export async function passOn(
  db: Database,
  release: Opening['release'],
  filled: Filled,
  turn: Turn,
  responseId: string,
): Promise<Turn | null> {
  const next = nextTurn(filled, turn)
  if (!next) return null
  const { definition } = release
  const to = addressesOf(answersInPlay(filled), next)
  const token = randomBytes(15).toString('base64url')
  await db.insert(turns).values({ responseId, turn: next.code, token, to })
  await post(
    db,
    to.map(address => ({
      responseId,
      to: address,
      subject: `${definition.title}: ${turnName(definition, next)}`,
      text: `It is your turn: ${turnName(definition, next)}. Open /f/${token} to go on.`,
    })),
  )
  return next
}

/** Who is to act in a turn; nobody by name where anyone with the link may. */
export function addressesOf(answers: Answers, { by }: Turn): string[] {
  if (by === 'link') return []
  if ('person' in by) return [by.person]
  if ('team' in by) return by.team
  const value = answers[by.answer]
  return typeof value === 'string' ? [value] : []
}

/** Gives the response back to the turn before, with a remark: its link is open again. */
export async function giveBack(db: Database, token: string, remark: string): Promise<{ to: string }> {
  return db.transaction(async tx => {
    const opening = await openingBy(tx, token, true)
    const { row, response, release } = opening
    const before = await turnBefore(tx, opening)
    if (!row || !response || !before || row.handedOffAt !== null || response.turn !== row.turn)
      return refuse(409, 'no-turn-before', 'There is no turn before this one that it could be given back to.')
    await tx.update(turns).set({ handedOffAt: null, remark }).where(eq(turns.id, before.row.id))
    await tx.delete(turns).where(eq(turns.id, row.id))
    await tx.update(responses).set({ turn: before.turn.code }).where(eq(responses.id, response.id))
    const name = turnName(release.definition, before.turn)
    await post(
      tx,
      before.row.to.map(address => ({
        responseId: response.id,
        to: address,
        subject: `${release.definition.title}: given back`,
        text: `“${remark}” Open /f/${before.row.token} to go on.`,
      })),
    )
    return { to: name }
  })
}

/** The turns of a response in the order in which they were opened. */
export const turnsOf = (db: Database, responseId: string) =>
  db
    .select({
      turn: turns.turn,
      token: turns.token,
      to: turns.to,
      openedAt: turns.openedAt,
      handedOffAt: turns.handedOffAt,
      remark: turns.remark,
    })
    .from(turns)
    .where(eq(turns.responseId, responseId))
    .orderBy(asc(turns.openedAt))

/** How many rows are given back for what was typed. */
const MOST_FOUND = 50

/** Rows of a long list that are on offer and fit what was typed: narrowed by the answers as they are, which are decided here. */
export async function findRows(db: Database, token: string, search: RowSearch) {
  const { plan, turn, response } = await openingBy(db, token)
  const { answers } = withTurn(plan, turn, response?.answers ?? {}, search.answers)
  const filled = fill(plan, answers, response?.begunOn ?? search.begunOn)
  const question = plan.byCode.get(search.path.replace(/^.*\./, ''))
  const view = accessViewOf(plan.form, plan.places, turn)
  if (!question?.offer || !mayFill(view, question.place))
    return refuse(422, 'no-choice', 'This form has no such choice here.')
  const frame = frameAt(filled, search.path)
  if (!frame) return refuse(422, 'no-choice', 'There is no such entry.')
  const { rows, count } = searchRows(
    question.offer.index,
    offeredNow(frame, question),
    search.typed,
    MOST_FOUND,
  )
  return { rows: rows.map(publicRow), count }
}

/** The frame of a path such as `engines[1].fuel`: the response, or an entry in it; null where there is no such entry. */
function frameAt(filled: Filled, path: string): Frame | null {
  let frame: Frame | null = filled
  for (const [, code = '', index = ''] of path.matchAll(/([a-z][a-z0-9_]*)\[(\d+)\]\./g)) {
    const group: PlannedGroup | undefined = filled.plan.groups.get(code)
    frame = (group && frame?.entries.get(group.place.order)?.[Number(index)]) ?? null
  }
  return frame
}

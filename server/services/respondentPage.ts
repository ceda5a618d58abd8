import { documentsForSender } from './documents/offered'
import { signedIn } from './documents/signing'
import { describeResponse } from '../../core/fill/describeResponse'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { redactForParty, type RedactedForm } from '../../core/parties/redact'
import { withPlacesLeft } from '../../core/form/places'
import { standingQuotedIn, type Standing } from '../../core/form/standing'
import type { Answers } from '../../core/form/answers'
import { turnName, turnOf, withTurn } from '../../core/parties/turns'
import type { OpenedTurn, RespondentPage, Sending, TurnDraft, VisibleForm } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { isoToday } from './calendar'
import { isOpen, mayHandOn } from './keepTurn'
import { broughtBy, resolveLink, type LinkTarget, type LinkUse } from './links'
import { listEarlierTurns, nameToTell } from './returnTurn'
import { ownResponseOf } from './ownLinks'
import { loadPlaces } from './places'
import { standingOf } from './workspace'

/** Everything that a page needs to be filled: only what the party of the turn may see leaves the server. */
export async function loadRespondentPage(db: Database, use: LinkUse): Promise<RespondentPage> {
  const target = await resolveLink(db, use, { for: 'beginning' })
  const { release, plan, turn, response } = target
  const begunOn = response?.begunOn ?? isoToday()
  const answers = answersSoFar(target)
  const standing = await standingOf(db, target)
  const seen = redactForParty(fill(plan, answers, begunOn), turn, answers)
  return {
    ...(await visibleForm(db, target, seen)),
    token: tokenToGoOn(target, use),
    brought: broughtBy(target),
    isAnonymous: target.entrance?.settings?.audience.isAnonymous === true,
    isGuarded: target.entrance?.settings?.audience.isGuarded === true,
    countsPages: target.entrance !== null && target.entrance.settings?.countsPages !== false,
    signs: mayHandOn(target) && signedIn({ plan }, turn).length > 0,
    release: release.number,
    today: begunOn,
    answers: seen.answers,
    turn: await openedTurn(db, target, seen, { begunOn, standing }),
    own: await ownResponseOf(db, target),
    standing: standingQuotedIn(seen.form, standing),
  }
}

/** Under what a page goes on: the link of its turn or response, a further way with the number of the release, else the release’s own. */
function tokenToGoOn({ response, release, entrance }: LinkTarget, use: LinkUse): string {
  if (response) return use.token
  return entrance?.way ? `${entrance.way.token}~${release.number}` : release.token
}

/** The answers of a response, with what its open turn has typed so far. */
function answersSoFar(target: LinkTarget): Answers {
  const { plan, turn, row, response } = target
  const stored = response?.answers ?? broughtBy(target)
  return row?.draft && isOpen(target) ? withTurn(plan, turn, stored, row.draft).answers : stored
}

/** What a party sees, with no options that have run out. */
async function visibleForm(
  db: Database,
  { release, response, entrance }: LinkTarget,
  { form, access, refetchOn }: RedactedForm,
): Promise<VisibleForm> {
  const places = entrance ? (entrance.places ?? []) : await loadPlaces(db, release)
  return { definition: withPlacesLeft(form, places, response?.answers ?? {}), access, refetchOn }
}

/** The turn that a link opens, for whoever takes it; null in a form without turns. */
async function openedTurn(
  db: Database,
  target: LinkTarget,
  seen: RedactedForm,
  { begunOn, standing }: { begunOn: string; standing: Standing },
): Promise<OpenedTurn | null> {
  const { release, turn, row, response } = target
  if (!turn) return null
  const opened = {
    name: turnName(release.definition, turn),
    isFirst: response === null,
    remark: row?.remark ?? null,
    pointed: pointedAt(target),
  }
  if (isOpen(target)) {
    const returnsTo = await listEarlierTurns(db, target)
    const nothing = { handedOffAt: null, givenBackTo: null, lines: [], documents: [] }
    return { ...opened, ...nothing, returnsTo, draft: draftOf(row) }
  }
  const lines = describeResponse(planOf(seen.form), seen.answers, begunOn, standing)
  const documents = response ? await documentsForSender(db, target, response.number) : []
  return { ...opened, ...closing(target), returnsTo: [], draft: null, lines, documents }
}

/** Since when a turn is not open, and whose turn it is meanwhile where it was given back. */
function closing({ release, row, response }: LinkTarget): Pick<OpenedTurn, 'handedOffAt' | 'givenBackTo'> {
  const form = release.definition
  const at = row?.givenBackAt ?? row?.handedOffAt ?? row?.openedAt
  const current = row?.givenBackAt ? turnOf(form, response?.turn ?? '') : null
  return { handedOffAt: at?.toISOString() ?? null, givenBackTo: current ? turnName(form, current) : null }
}

/** The questions that a remark is about. */
function pointedAt({ plan, row }: LinkTarget): OpenedTurn['pointed'] {
  const pointed = new Set(row?.pointed)
  return plan.questions.flatMap(({ place }) =>
    pointed.has(place.code) ? [{ code: place.code, label: nameToTell(place) }] : [],
  )
}

/** What was typed so far and is kept. */
function draftOf(row: LinkTarget['row']): TurnDraft | null {
  if (!row?.draft || !row.draftAt || row.draftSeat === null || row.draftKey === null) return null
  const { draft, draftAt, draftSeat, draftKey, draftBy } = row
  return { at: draftAt.toISOString(), by: draftBy ?? '', seat: draftSeat, key: draftKey, answers: draft }
}

/** The form for other answers of this turn: what the party's page asks for when an outcome over hidden answers may have changed. */
export async function refetchForm(
  db: Database,
  use: LinkUse,
  sending: Pick<Sending, 'answers' | 'begunOn'>,
): Promise<VisibleForm> {
  const target = await resolveLink(db, use)
  const { plan, turn, row, response } = target
  if (row?.handedOffAt) refuse(409, 'handed-off', 'This turn has been handed off already.')
  const begunOn = response?.begunOn ?? sending.begunOn
  const { answers } = withTurn(plan, turn, response?.answers ?? {}, sending.answers)
  return visibleForm(db, target, redactForParty(fill(plan, answers, begunOn), turn, answers))
}

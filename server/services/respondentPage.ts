import { describeResponse } from '../../core/fill/describeResponse'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { redactForParty, type RedactedForm } from '../../core/parties/redact'
import { turnName, withTurn } from '../../core/parties/turns'
import type { OpenedTurn, RespondentPage, Sending, VisibleForm } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { isoToday } from './calendar'
import { resolveLink, type LinkTarget } from './links'
import { findPreviousTurn } from './returnTurn'

/** Everything that a page needs to be filled: only what the party of the turn may see leaves the server. */
export async function loadRespondentPage(db: Database, token: string): Promise<RespondentPage> {
  const target = await resolveLink(db, token)
  const { release, plan, turn, response } = target
  const begunOn = response?.begunOn ?? isoToday()
  const answers = response?.answers ?? {}
  const seen = redactForParty(fill(plan, answers, begunOn), turn, answers)
  return {
    ...visibleForm(seen),
    release: release.number,
    today: begunOn,
    answers: seen.answers,
    turn: await openedTurn(db, target, seen, begunOn),
  }
}

const visibleForm = ({ form, access, refetchOn }: RedactedForm): VisibleForm => ({
  definition: form,
  access,
  refetchOn,
})

/** The turn that a link opens, for whoever takes it; null in a form without turns. */
async function openedTurn(
  db: Database,
  target: LinkTarget,
  seen: RedactedForm,
  begunOn: string,
): Promise<OpenedTurn | null> {
  const { release, turn, row, response } = target
  if (!turn) return null
  const isOpen = row === null || (row.handedOffAt === null && response?.turn === turn.code)
  const previous = response ? await findPreviousTurn(db, target) : null
  return {
    name: turnName(release.definition, turn),
    isFirst: response === null,
    handedOffAt: isOpen ? null : (row.handedOffAt ?? row.openedAt).toISOString(),
    remark: row?.remark ?? null,
    returnsTo: previous ? turnName(release.definition, previous.turn) : null,
    lines: isOpen ? [] : describeResponse(planOf(seen.form), seen.answers, begunOn),
  }
}

/** The form for other answers of this turn: what the party's page asks for when an outcome over hidden answers may have changed. */
export async function refetchForm(
  db: Database,
  token: string,
  sending: Pick<Sending, 'answers' | 'begunOn'>,
): Promise<VisibleForm> {
  const { plan, turn, row, response } = await resolveLink(db, token)
  if (row?.handedOffAt) refuse(409, 'handed-off', 'This turn has been handed off already.')
  const begunOn = response?.begunOn ?? sending.begunOn
  const { answers } = withTurn(plan, turn, response?.answers ?? {}, sending.answers)
  return visibleForm(redactForParty(fill(plan, answers, begunOn), turn, answers))
}

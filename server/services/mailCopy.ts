import { describeResponse } from '../../core/fill/describeResponse'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { redactForParty } from '../../core/parties/redact'
import { framesOf } from '../../core/fill/draw'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { findSent } from './findSent'
import { resolveLink, type LinkUse } from './links'
import { countTry } from './people/tallies'
import { standingOf } from './workspace'

/** Posts a copy of a response to whoever has just sent it: to an address that it gives itself, so that nobody else is written to. */
export async function mailCopy(
  db: Database,
  use: LinkUse,
  { key, to }: { key: string; to: string },
): Promise<void> {
  const target = await resolveLink(db, use, { for: 'sending' })
  const { release, plan, turn, entrance } = target
  if (entrance?.settings?.audience.isAnonymous)
    return refuse(403, 'anonymous', 'This form is anonymous: no address is kept, so no copy is posted.')
  const response = target.response ?? (await findSent(db, release.id, key))
  if (!response) return refuse(404, 'not-found', 'There is no such response; it may not have been sent yet.')
  const filled = fill(plan, response.answers, response.begunOn)
  const seen = redactForParty(filled, turn, response.answers)
  const own = planOf(seen.form)
  const shown = fill(own, seen.answers, response.begunOn)
  const addresses = own.questions
    .filter(q => q.place.node.type === 'email')
    .flatMap(q => framesOf(shown, q).map(frame => frame.values[q.slot]))
  if (!addresses.includes(to))
    refuse(422, 'other-address', 'A copy goes only to an address that the answers give.')
  await countTry(db, 'copyByResponse', response.id)
  const lines = describeResponse(
    own,
    seen.answers,
    response.begunOn,
    await standingOf(db, { ...target, response }),
  )
    .filter(line => line.state !== 'unasked' && line.type !== 'hidden')
    .map(line => `${line.label}: ${line.state === 'blank' ? 'left blank' : line.text}`)
  const head = `Your answers to “${release.definition.title}”, number ${response.number}:`
  await sendMail(db, [
    {
      responseId: response.id,
      to,
      subject: `${release.definition.title}: your answers`,
      text: [head, '', ...lines].join('\n'),
    },
  ])
}

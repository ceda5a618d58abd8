import { planOf } from '../../core/fill/plan'
import { deliveredText } from '../../core/parties/deliveries'
import { splitQuotes } from '../../core/form/quotes'
import { standpointAtEnd } from '../../core/form/scope'
import type { ResponsesAct } from '../../shared/api/workbench'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import type { ResponseAct } from './actOnOne'
import { fillFor } from './deliveries/queue'
import { loadVersions } from './versions'

type Message = Extract<ResponsesAct, { do: 'message' }>

/** What posts a message about a response to the address that it gives itself. Refused where the text quotes what can’t be read. */
export async function messageSender(
  db: Database,
  formId: string,
  { to, subject, text }: Omit<Message, 'do'>,
  who: string,
): Promise<ResponseAct> {
  const definitions = await loadVersions(db, formId)
  const [newest] = definitions
  if (!newest) return refuse(404, 'not-found', 'This form has no version yet, and so no responses.')
  refuseWrongQuotes(newest.form, { subject, text })
  return async (tx, { response, release }) => {
    if (response.binnedAt !== null) return 'It is in the bin.'
    const filled = await fillFor(tx, { response, release })
    const own = definitions.find(d => d.number === release.number)
    const { plan } = filled
    const question = plan.questions.find(q => (own?.newest(q.place.code) ?? q.place.code) === to)
    if (question?.place.node.type !== 'email') return 'Its version does not ask for that address.'
    const address = filled.values[question.slot]
    if (typeof address !== 'string') return 'It gives no address.'
    await sendMail(tx, [
      {
        responseId: response.id,
        to: address,
        subject: deliveredText(filled, subject).replaceAll(/\s+/g, ' '),
        text: `${deliveredText(filled, text)}\n\n${who}`,
      },
    ])
    return null
  }
}

/** Refuses texts that quote what a form doesn’t have, with where it stands. */
function refuseWrongQuotes(
  form: Parameters<typeof planOf>[0],
  texts: Readonly<Record<string, string>>,
): void {
  const { names } = planOf(form)
  const problems = Object.entries(texts).flatMap(([path, text]) =>
    splitQuotes(text).flatMap(piece => {
      if (piece.kind === 'words') return []
      const { expr, syntax, problems: found } = names.readQuote(piece.source, standpointAtEnd(form))
      if (expr) return []
      const sentence = syntax?.message ?? found[0]?.sentence ?? 'It can’t be read.'
      return [{ path, sentence: `{{ ${piece.source} }}: ${sentence}` }]
    }),
  )
  if (problems.length > 0)
    refuse(422, 'wrong-quote', 'A quote in the text can’t be read; nothing was posted.', problems)
}

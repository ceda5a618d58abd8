import { randomUUID } from 'node:crypto'
import { startServer } from '../browser/ownServer'

type Say = (what: string, value: string, goal: string) => void
const SENDINGS = 400
const TOGETHER = 64
const PLACES = 100
const day = new Date().toISOString().slice(0, 10)
const OPTIONS = [
  { code: 'north', label: 'North quay', places: PLACES },
  { code: 'south', label: 'South quay' },
]
const FORM = {
  ...{ tobbin: 2, code: 'berths', title: 'Berths' },
  sections: [
    {
      ...{ code: 's', title: 'Berth' },
      items: [{ kind: 'question', type: 'choice', code: 'berth', label: 'Which berth?', options: OPTIONS }],
    },
  ],
}

/** Sendings that all want an option with fewer places, many at once: how many a second are answered, and how many too many were taken. */
export async function limitedOption(say: Say): Promise<void> {
  const server = await startServer({ demo: true })
  let cookie = ''
  const call = (method: string, path: string, body: object) =>
    fetch(`${server.url}${path}`, {
      method,
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    })
  try {
    const signed = await call('POST', '/api/session', {
      email: 'ines@wherry.example',
      password: 'wherry-reach',
    })
    cookie = signed.headers
      .getSetCookie()
      .map(c => c.split(';')[0])
      .join('; ')
    const { id } = await (await call('POST', '/api/forms', { definition: FORM })).json()
    const { token } = await (await call('POST', `/api/forms/${id}/releases`, { revision: 0 })).json()
    cookie = ''
    let [left, taken, refused] = [SENDINGS, 0, 0]
    const one = async () => {
      while (left-- > 0) {
        const sending = { release: 1, begunOn: day, key: randomUUID(), answers: { berth: 'north' } }
        const answer = await call('POST', `/api/answer/${token}`, sending)
        await answer.arrayBuffer()
        if (answer.status === 200) taken += 1
        else if (answer.status === 409) refused += 1
        else throw new Error(`A sending failed: ${answer.status}`)
      }
    }
    const begun = performance.now()
    await Promise.all(Array.from({ length: TOGETHER }, one))
    const rate = (SENDINGS * 1000) / (performance.now() - begun)
    const oversold = Math.max(0, taken - PLACES)
    say(
      `a choice with ${PLACES} places, ${TOGETHER} at once (${taken} taken, ${refused} refused)`,
      `${rate.toFixed(0)}/s, ${oversold} oversold`,
      '0 oversold',
    )
  } finally {
    await server.end()
  }
}

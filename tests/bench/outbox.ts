import { chromium, type Page } from '@playwright/test'
import { startServer } from '../browser/ownServer'
import { open } from '../browser/support'

type Say = (what: string, value: string, goal: string) => void
const WAITING = 200
const FORM = {
  ...{ tobbin: 2, code: 'rounds', title: 'Rounds of the pontoons' },
  sections: [
    {
      ...{ code: 's', title: 'Round' },
      items: [
        { kind: 'question', type: 'text', code: 'pontoon', label: 'Which pontoon?', required: true },
        { kind: 'question', type: 'longText', code: 'seen', label: 'What did you see?' },
      ],
    },
  ],
}

/** Responses that wait on a device until there is a network again: how long it takes to keep them there, and until the server has them all, each once. */
export async function offlineOutbox(say: Say): Promise<void> {
  const server = await startServer({ demo: true })
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium' })
  try {
    const desk = await (await browser.newContext({ baseURL: server.url })).newPage()
    const post = async (path: string, data: object) =>
      (await desk.request.post(path, { data, headers: { origin: server.url } })).json()
    await post('/api/session', { email: 'ines@wherry.example', password: 'wherry-reach' })
    const { id } = await post('/api/forms', { definition: FORM })
    const { token } = await post(`/api/forms/${id}/releases`, { revision: 0 })
    const field = await browser.newContext({ baseURL: server.url })
    const page = await field.newPage()
    await open(page, `/f/${token}`)
    const isKept = async () => (await (await caches.open('respondent-pages')).keys()).length > 0
    while (!(await page.evaluate(isKept))) await page.waitForTimeout(50)
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => true))
    await field.setOffline(true)
    await open(page, `/f/${token}`)
    const kept = await keepMany(page, token)
    say(`${WAITING} responses kept on a device without network`, `${kept.toFixed(0)} ms`, '')
    const begun = performance.now()
    await field.setOffline(false)
    while (!(await page.evaluate(isEmpty))) await page.waitForTimeout(50)
    const seconds = (performance.now() - begun) / 1000
    const { count } = await (await desk.request.get(`/api/forms/${id}/responses`)).json()
    say(
      `the same sent by themselves once there is one`,
      `${seconds.toFixed(1)} s, ${(WAITING / seconds).toFixed(0)}/s, ${count} stored`,
      `${WAITING} stored`,
    )
  } finally {
    await browser.close()
    await server.end()
  }
}

/** Whether nothing waits in the page’s outbox any more. */
const isEmpty = () =>
  new Promise<boolean>((resolve, reject) => {
    const request = indexedDB.open('tobbin-outbox')
    request.addEventListener('error', () => reject(new Error(String(request.error))))
    request.addEventListener('success', () => {
      const counted = request.result.transaction('waiting').objectStore('waiting').count()
      counted.addEventListener('success', () => {
        request.result.close()
        resolve(counted.result === 0)
      })
    })
  })

/** Keeps responses as the page itself keeps one that it can’t send. @returns milliseconds */
async function keepMany(page: Page, token: string): Promise<number> {
  // What the page keeps is made by its own hand once: so the outbox is there, in its shape.
  await page.getByLabel('Which pontoon?').fill('Pontoon 1')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send', exact: true }).click()
  await page.getByRole('heading', { name: 'Waiting to be sent' }).waitFor()
  return page.evaluate(
    async ({ count, link }) => {
      const opening = indexedDB.open('tobbin-outbox')
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        opening.addEventListener('success', () => resolve(opening.result))
        opening.addEventListener('error', () => reject(new Error(String(opening.error))))
      })
      const first = await new Promise<{ body: object } | undefined>(resolve => {
        const all = db.transaction('waiting').objectStore('waiting').getAll()
        all.addEventListener('success', () => resolve(all.result[0]))
      })
      if (!first) throw new Error('Nothing waits.')
      const begun = performance.now()
      for (let i = 1; i < count; i++) {
        const key = crypto.randomUUID()
        const body = {
          ...first.body,
          key,
          answers: { pontoon: `Pontoon ${i}`, seen: 'All fast. '.repeat(20) },
        }
        const keeping = db.transaction('waiting', 'readwrite')
        keeping.objectStore('waiting').put({ key, token: link, body, kept: '', refusal: null })
        await new Promise(resolve => keeping.addEventListener('complete', resolve))
      }
      db.close()
      return performance.now() - begun
    },
    { count: WAITING, link: token },
  )
}

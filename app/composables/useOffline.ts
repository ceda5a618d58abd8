import { useEventListener, useIntervalFn } from '@vueuse/core'
import type { Sending, Sent } from '#shared/api/answering'
import type { Waiting } from '~~/offline/outbox'

const WORKER = '/respondent-worker.js'
/** Milliseconds after which it is tried again while something waits. */
const AGAIN = 20_000

/** What waits on a device to be sent is not part of the first page. */
const outbox = () => import('~~/offline/outbox')

/** Tells the browser to send what waits once there is a network, also when no page is open (Background Sync, where there is one). */
async function askForSync(): Promise<void> {
  const registration = await navigator.serviceWorker?.getRegistration('/f/')
  if (!registration || !('sync' in registration)) return
  const { sync } = registration
  if (isObject(sync) && typeof sync.register === 'function') await sync.register('send-waiting')
}

/** Lets the browser keep the page for going on without network. */
async function keepForOffline(): Promise<void> {
  await navigator.serviceWorker.register(WORKER, { scope: '/f/' })
  const { active } = await navigator.serviceWorker.ready
  active?.postMessage({ keepPage: window.location.pathname })
}

/**
 * A respondent’s page without network: it goes on, and what is sent waits on this device and goes out by itself.
 * @param isBeginning whether a response is begun here: turns and corrections are sent only with a network
 */
export function useOffline(token: string, isBeginning: boolean) {
  const waiting = shallowRef<Waiting[]>([])
  const isSending = ref(false)
  async function refresh() {
    waiting.value = await (await outbox()).listWaiting(token)
  }
  /** Sends what waits, as far as it can be. */
  async function sendNow() {
    if (isSending.value) return
    isSending.value = true
    try {
      await (await outbox()).sendWaiting()
    } catch {
      // Still out of reach: it waits on, and the page says so.
    }
    isSending.value = false
    await refresh().catch(() => undefined) // a browser that keeps nothing has nothing that waits
  }
  /** Keeps a response until it can be sent. */
  async function wait(body: Sending, kept: string) {
    const { keepWaiting } = await outbox()
    await keepWaiting({ token, key: body.key, body, kept })
    await refresh()
    await askForSync().catch(() => undefined) // without it the page sends, once it is open
  }
  /** Keeps a file until its response is sent; named as the server would name it. */
  async function keepFile(question: string, key: string, file: File) {
    const { keepFile: keep } = await outbox()
    const id = await keep({ token, question, key, name: file.name, content: file })
    return { file: id, name: file.name, bytes: file.size }
  }
  /** A body whose files the server has: those that waited here are given to it now. */
  async function withFiles(body: Sending): Promise<Sending> {
    if (!JSON.stringify(body.answers).includes('"here-')) return body
    const { answers } = await (await outbox()).uploadFiles({ answers: body.answers })
    return { ...body, answers: isAnswers(answers) ? answers : body.answers }
  }
  const drop = async (key: string) => {
    await (await outbox()).dropWaiting(key)
    await refresh()
  }
  /** What came of a response that went out by itself; null while it waits. */
  async function delivered(key: string): Promise<Sent | null> {
    const found = await (await outbox()).takeDelivered(key)
    return found && readSent(found.answer)
  }

  const retry = useIntervalFn(() => void sendNow(), AGAIN, { immediate: false })
  watch(waiting, all => (all.some(w => w.refusal === null) ? retry.resume() : retry.pause()))
  useEventListener('online', () => void sendNow())
  onMounted(async () => {
    if (!isBeginning) return
    if (!import.meta.dev && navigator.serviceWorker) await keepForOffline().catch(() => undefined) // a browser that keeps nothing works with a network
    await sendNow()
  })
  return { isBeginning, waiting, isSending, sendNow, wait, keepFile, withFiles, drop, delivered }
}
export type Offline = ReturnType<typeof useOffline>

const isAnswers = (value: unknown): value is Sending['answers'] => isObject(value)
/** What is to be paid, as the server told it; null for nothing. */
function readPayment(told: unknown): Sent['payment'] {
  if (!isObject(told)) return null
  const [amount, currency, title, link] = [told.amount, told.currency, told.title, told.link].map(String)
  return {
    amount: amount ?? '',
    currency: currency ?? '',
    title: title ?? '',
    link: link ?? '',
    state: 'open',
  }
}
/** The documents that are offered, as the server told them. */
const readDocuments = (told: unknown): Sent['documents'] =>
  (Array.isArray(told) ? told : [])
    .filter(isObject)
    .map(({ code, title }) => ({ code: String(code), title: String(title) }))
/** The server’s answer to what was sent by itself. */
function readSent({ sentAt, number, ...others }: Record<string, unknown>): Sent {
  const [next = null, link = null, own = null] = [others.next, others.link, others.own].map(part =>
    typeof part === 'string' ? part : null,
  )
  return {
    sentAt: String(sentAt),
    number: Number(number),
    next,
    link,
    own,
    payment: readPayment(others.payment),
    documents: readDocuments(others.documents),
  }
}

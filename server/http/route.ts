import { createError, defineEventHandler, type EventHandlerRequest, type H3Event } from 'h3'
import type { AnswerOf, Endpoint, ReadRequest } from '../../shared/api/endpoints'
import type { Doer } from '../services/people/record'
import type { Caller } from '../services/people/sessions'
import { database } from '../store/current'
import type { Database } from '../store/database'
import { describeForLog, refusalOfStore } from '../store/storeErrors'
import type { Admission } from './guard'
import { readRequest } from './readRequest'
import { refuse, Refused } from './refuse'
import { sourceOf } from './source'

declare module 'h3' {
  interface H3EventContext {
    /** Set by the guard: without it no route answers. */
    admission?: Admission
  }
}

/** What a route works with: the request as it was read, the store, and whom the record is to name. */
export interface RouteContext<E extends Endpoint> extends ReadRequest<E> {
  event: H3Event<EventHandlerRequest>
  db: Database
  doer: Doer
  /** Who is signed in; null for strangers. */
  caller: Caller | null
}
/** What a route of people who are signed in works with besides. */
export interface OwnContext {
  designer: Caller
  powers: Admission['powers']
}

interface Bounds {
  /** Bytes of the body at most. */
  most?: number
}

/** Bytes of a body that strangers may send, unless a route says otherwise. */
const LARGEST_OF_STRANGERS = 100_000

/** A route that anybody may call. */
export const openRoute = <E extends Endpoint>(
  endpoint: E,
  handle: (context: RouteContext<E>) => Promise<AnswerOf<E>>,
  { most = LARGEST_OF_STRANGERS }: Bounds = {},
) =>
  answering(async event => {
    const { caller } = admissionOf(event)
    const request = await readRequest(event, endpoint, most)
    return handle({ ...request, event, db: await database(), doer: doerOf(event, caller), caller })
  })

/** A route of people who are signed in; which of them is said in `access.ts` and was decided by the guard before anything of the request is read. */
export const designerRoute = <E extends Endpoint>(
  endpoint: E,
  handle: (context: RouteContext<E> & OwnContext) => Promise<AnswerOf<E>>,
  { most }: Bounds = {},
) =>
  answering(async event => {
    const { caller, powers } = admissionOf(event)
    if (!caller) return refuse(401, 'signed-out', 'Sign in to go on.')
    const request = await readRequest(event, endpoint, most)
    return handle({
      ...request,
      event,
      db: await database(),
      doer: doerOf(event, caller),
      caller,
      designer: caller,
      powers,
    })
  })

function admissionOf(event: H3Event): Admission {
  return event.context.admission ?? refuse(404, 'not-found', 'There is nothing at this address.')
}

const doerOf = (event: H3Event, caller: Caller | null): Doer => ({
  id: caller?.id ?? null,
  name: caller?.name ?? '',
  source: sourceOf(event),
})

/** The answer to a request that failed. What is no refusal is written to the log, and says nothing of itself outside. */
function answerTo(error: unknown) {
  const known = error instanceof Refused ? error : refusalOfStore(error)
  if (!(error instanceof Refused)) console.error(describeForLog(error))
  if (!known) return createError({ statusCode: 500, statusMessage: 'server-error' })
  const { status, refusal } = known
  return createError({
    statusCode: status,
    statusMessage: refusal.code,
    message: refusal.sentence,
    data: refusal,
  })
}

/** Refusals leave the server in one shape; any other error is the server's. */
export const answering = <T>(handle: (event: H3Event<EventHandlerRequest>) => Promise<T>) =>
  defineEventHandler(async event => {
    try {
      return await handle(event)
    } catch (error) {
      throw answerTo(error)
    }
  })

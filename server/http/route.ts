import { createError, defineEventHandler, type EventHandlerRequest, type H3Event } from 'h3'
import type { AnswerOf, Endpoint, ReadRequest } from '../../shared/api/endpoints'
import type { Designer } from '../../shared/api/session'
import { database } from '../store/current'
import type { Database } from '../store/database'
import { readRequest } from './readRequest'
import { refuse, Refused } from './refuse'
import { readDesigner } from './session'

/** What a route works with: the request as it was read, and the store. */
export interface RouteContext<E extends Endpoint> extends ReadRequest<E> {
  event: H3Event<EventHandlerRequest>
  db: Database
}

interface Bounds {
  /** Bytes of the body at most. */
  most?: number
}

/** A route that anybody may call. */
export const openRoute = <E extends Endpoint>(
  endpoint: E,
  handle: (context: RouteContext<E>) => Promise<AnswerOf<E>>,
  { most }: Bounds = {},
) =>
  answering(async event => {
    const request = await readRequest(event, endpoint, most)
    return handle({ ...request, event, db: await database() })
  })

/** A route of the designers: refused unless somebody is signed in, before anything of the request is read. */
export const designerRoute = <E extends Endpoint>(
  endpoint: E,
  handle: (context: RouteContext<E> & { designer: Designer }) => Promise<AnswerOf<E>>,
  { most }: Bounds = {},
) =>
  answering(async event => {
    const designer = await requireDesigner(event)
    const request = await readRequest(event, endpoint, most)
    return handle({ ...request, event, db: await database(), designer })
  })

/** A route of the designers that answers with bytes. */
export const downloadRoute = (
  handle: (context: {
    event: H3Event<EventHandlerRequest>
    db: Database
    designer: Designer
  }) => Promise<Buffer>,
) =>
  answering(async event => {
    const designer = await requireDesigner(event)
    return handle({ event, db: await database(), designer })
  })

async function requireDesigner(event: H3Event): Promise<Designer> {
  return (await readDesigner(event)) ?? refuse(401, 'signed-out', 'Sign in to go on.')
}

/** Refusals leave the server in one shape; any other error is the server's, and says nothing of itself. */
const answering = <T>(handle: (event: H3Event<EventHandlerRequest>) => Promise<T>) =>
  defineEventHandler(async event => {
    try {
      return await handle(event)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      throw createError({
        statusCode: error.status,
        statusMessage: error.refusal.code,
        message: error.refusal.sentence,
        data: error.refusal,
      })
    }
  })

import {
  createError,
  defineEventHandler,
  getRouterParam,
  readBody,
  getRequestHeader,
  type EventHandlerRequest,
  type H3Event,
} from 'h3'
import type { z } from 'zod'
import { problemsOf } from '../../core/form/read'
import type { Refusal } from '../../shared/api'

/** A refusal for people: turned into the one shape of error that every route answers with. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly refusal: Refusal,
  ) {
    super(refusal.sentence)
    this.name = 'Refused'
  }
}

/** Throws a refusal. */
export function refuse(
  status: number,
  code: string,
  sentence: string,
  problems?: Refusal['problems'],
): never {
  throw new Refused(status, { code, sentence, problems })
}

type Event = H3Event<EventHandlerRequest>
export interface Designer {
  id: string
  name: string
  email: string
}

const LARGEST_BODY = 45_000_000

/** A route of the designers: refused unless somebody is signed in. */
export const designerRoute = <T>(handle: (event: Event, designer: Designer) => Promise<T>) =>
  openRoute(async event => {
    const { user } = await getUserSession(event)
    if (!user) return refuse(401, 'signed-out', 'Sign in to go on.')
    return handle(event, user)
  })

/** A route that anybody may call. */
export const openRoute = <T>(handle: (event: Event) => Promise<T>) =>
  defineEventHandler(async event => {
    try {
      return await handle(event)
    } catch (error) {
      if (error instanceof Refused)
        throw createError({
          statusCode: error.status,
          statusMessage: error.refusal.code,
          message: error.refusal.sentence,
          data: error.refusal,
        })
      throw error
    }
  })

/** Refuses a body that says it is longer than so many bytes, before it is read. */
export function refuseLonger(event: Event, most: number) {
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > most)
    refuse(413, 'too-large', `This is larger than ${most / 1_000_000} MB, the most that is read at once.`)
}

/** Reads and checks the body; what doesn't fit is refused with every problem and its path. */
export async function bodyOf<T>(event: Event, schema: z.ZodType<T>, most = LARGEST_BODY): Promise<T> {
  refuseLonger(event, most)
  let body: unknown
  try {
    body = await readBody(event)
  } catch {
    return refuse(400, 'not-json', 'The request is not JSON.')
  }
  const result = schema.safeParse(body)
  if (result.success) return result.data
  const problems = problemsOf(result.error, body)
  return refuse(
    400,
    'wrong-shape',
    `The request doesn’t fit: ${problems[0]?.path ?? ''} ${problems[0]?.sentence ?? ''}`.trim(),
    problems,
  )
}

const UUID = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/

/** The id in the address; one that can't be an id is not found. */
export function idOf(event: Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  return UUID.test(id) ? id : refuse(404, 'not-found', 'There is nothing at this address.')
}

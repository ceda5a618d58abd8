import { getQuery, getRequestHeader, getRouterParams, type H3Event } from 'h3'
import type { z } from 'zod'
import { problemsOf } from '../../core/form/read'
import { withStorableTexts } from '../../core/form/storableText'
import type { Endpoint, ReadRequest } from '../../shared/api/endpoints'
import { readBytes, refuseTooLarge } from './readBody'
import { refuse } from './refuse'

/** Bytes of a body, unless a route says otherwise. */
const LARGEST_BODY = 45_000_000

/** Reads a request by the schemas of its endpoint; what does not fit is refused. `most`: bytes of the body. */
export async function readRequest<E extends Endpoint>(
  event: H3Event,
  endpoint: E,
  most?: number,
): Promise<ReadRequest<E>>
export async function readRequest(event: H3Event, { params, query, body }: Endpoint, most = LARGEST_BODY) {
  return {
    params: params ? readParams(event, params) : undefined,
    query: query ? readValid(getQuery(event), query, 'The question') : undefined,
    body: body ? await readValidBody(event, body, most) : undefined,
  }
}

/** An address with a part that can't be one leads nowhere. */
function readParams(event: H3Event, schema: z.ZodType) {
  const result = schema.safeParse(decodedParams(event))
  return result.success ? result.data : refuse(404, 'not-found', 'There is nothing at this address.')
}

function decodedParams(event: H3Event) {
  try {
    return getRouterParams(event, { decode: true })
  } catch {
    return refuse(404, 'not-found', 'There is nothing at this address.') // “%” that stands for nothing
  }
}

async function readValidBody(event: H3Event, schema: z.ZodType, most: number): Promise<unknown> {
  refuseLonger(event, most)
  return readValid(parseJson(await readBytes(event, most)), schema, 'The request')
}

function parseJson(bytes: Buffer): unknown {
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    return refuse(400, 'not-json', 'The request is not JSON.')
  }
}

/** What does not fit is refused with every problem and its path. Signs that the store can't hold are taken out of every text. */
function readValid(data: unknown, schema: z.ZodType, what: string): unknown {
  const result = schema.safeParse(withStorableTexts(data))
  if (result.success) return result.data
  const problems = problemsOf(result.error, data)
  const [first] = problems
  const sentence = `${what} doesn’t fit: ${first?.path ?? ''} ${first?.sentence ?? ''}`.trim()
  return refuse(400, 'wrong-shape', sentence, problems)
}

/** Refuses a body that says it is longer than so many bytes, before it is read. */
export function refuseLonger(event: H3Event, most: number) {
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > most) refuseTooLarge(most)
}

import { getQuery, getRequestHeader, getRouterParams, type H3Event } from 'h3'
import type { z } from 'zod'
import { API, type Endpoint, type ReadRequest } from '../../shared/api/endpoints'
import { runTask } from '../threads/run'
import { readBytes, refuseTooLarge } from './readBody'
import { readJson, readValid, type ReadJson } from './readJson'
import { refuse, Refused } from './refuse'

/** Bytes of a body, unless a route says otherwise. */
const LARGEST_BODY = 45_000_000
/** Bytes from which on a body is read beside the thread that answers requests. */
const LONG_BODY = 200_000

/** Reads a request by the schemas of its endpoint; what does not fit is refused. `most`: bytes of the body. */
export async function readRequest<E extends Endpoint>(
  event: H3Event,
  endpoint: E,
  most?: number,
): Promise<ReadRequest<E>>
export async function readRequest(event: H3Event, endpoint: Endpoint, most = LARGEST_BODY) {
  const { params, query, body } = endpoint
  return {
    params: params ? readParams(event, params) : undefined,
    query: query ? dataOf(readValid(getQuery(event), query, 'The question')) : undefined,
    body: body ? await readBody(event, endpoint, body, most) : undefined,
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

async function readBody(event: H3Event, endpoint: Endpoint, schema: z.ZodType, most: number) {
  refuseLonger(event, most)
  const bytes = await readBytes(event, most)
  const name = bytes.length > LONG_BODY ? nameOf(endpoint) : undefined
  return dataOf(name ? await runTask('readBody', { endpoint: name, bytes }) : readJson(bytes, schema))
}

const nameOf = (endpoint: Endpoint) => NAMES.find(name => API[name] === endpoint)
const isName = (name: string): name is keyof typeof API => name in API
const NAMES = Object.keys(API).filter(isName)

function dataOf({ data, refusal }: ReadJson): unknown {
  if (refusal) throw new Refused(400, refusal)
  return data
}

/** Refuses a body that says it is longer than so many bytes, before it is read. */
export function refuseLonger(event: H3Event, most: number) {
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > most) refuseTooLarge(most)
}

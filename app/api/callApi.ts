import type { AnswerOf, Endpoint, RequestOf } from '#shared/api/endpoints'

/** What an endpoint is called with; left out where it takes nothing. */
type Arguments<E extends Endpoint> = object extends RequestOf<E> ? [RequestOf<E>?] : [RequestOf<E>]

/** The parts of a request as they are put together: what they may be is the endpoint's matter. */
export interface Parts {
  params?: object
  query?: object
  body?: unknown
}

/** The address of an endpoint with its parameters in it. */
export const addressOf = (path: string, params: object = {}): string =>
  path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(Reflect.get(params, name))))

/**
 * Calls an endpoint of the server and reads what comes back by its schema.
 * @throws the server's refusal, or that it can't be reached, as `refusalOf` reads it
 */
export function callApi<E extends Endpoint>(endpoint: E, ...request: Arguments<E>): Promise<AnswerOf<E>>
export function callApi(endpoint: Endpoint, request?: Parts): Promise<unknown> {
  return callWith(plainFetch, endpoint, request)
}

/** The same with bytes as the body. */
export function sendBlob<E extends Endpoint>(
  endpoint: E,
  parts: RequestOf<E>,
  body: Blob,
): Promise<AnswerOf<E>>
export function sendBlob(endpoint: Endpoint, parts: Parts, body: Blob): Promise<unknown> {
  return callWith(plainFetch, endpoint, { ...parts, body })
}

/** The same for what is asked while a page is made on the server: the visitor's cookies go with it. */
export function useApi(): typeof callApi {
  const fetch = useRequestFetch()
  function call<E extends Endpoint>(endpoint: E, ...request: Arguments<E>): Promise<AnswerOf<E>>
  function call(endpoint: Endpoint, request?: Parts): Promise<unknown> {
    return callWith((address, options) => fetch<unknown, string>(address, options), endpoint, request)
  }
  return call
}

export type Fetch = (address: string, options: FetchOptions) => Promise<unknown>
interface FetchOptions {
  method: Endpoint['method']
  query?: Record<string, unknown>
  body?: Record<string, unknown> | Blob
  headers?: Record<string, string>
}

export const plainFetch: Fetch = (address, options) => $fetch<unknown, string>(address, options)

async function callWith(fetch: Fetch, endpoint: Endpoint, parts?: Parts) {
  return endpoint.answer.parse(await request(fetch, endpoint, parts))
}

/** Sends a request. What comes back is not read yet. */
export function request(
  fetch: Fetch,
  { method, path }: Pick<Endpoint, 'method' | 'path'>,
  { params, query, body }: Parts = {},
): Promise<unknown> {
  const options: FetchOptions = { method, query: { ...query } }
  if (body instanceof Blob) {
    options.body = body
    options.headers = { 'content-type': 'application/octet-stream' }
  } else if (typeof body === 'object' && body !== null) options.body = { ...body }
  return fetch(addressOf(path, params), options)
}

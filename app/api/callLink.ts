import type { API, AnswerOf, RequestOf } from '#shared/api/endpoints'
import { LINK_ROUTES, type LinkRoute } from '#shared/api/linkRoutes'
import { plainFetch, request, type Fetch, type Parts } from './callApi'

type Called<N extends LinkRoute> = (typeof API)[N]

/** What every answer has: enough to tell it from what some proxy on the way says, without a schema library on the page. */
const PARTS: Record<LinkRoute, readonly string[]> = {
  openLink: ['definition', 'access', 'refetchOn', 'token', 'release', 'today', 'answers', 'turn', 'brought'],
  sendAnswers: ['sentAt', 'number', 'next', 'link', 'own'],
  refetchForm: ['definition', 'access', 'refetchOn'],
  searchRows: ['rows', 'count'],
  keepTurn: ['at'],
  returnTurn: ['to'],
  enterPassphrase: ['done'],
  mailCopy: ['done'],
  keepAnswers: ['secret', 'at'],
  recallAnswers: ['kept', 'at'],
  mailKept: ['done'],
  fetchDocument: ['name', 'content'],
  readToSign: ['documents'],
  giveFile: ['file', 'name', 'bytes'],
}

function isAnswer<N extends LinkRoute>(name: N, value: unknown): value is AnswerOf<Called<N>> {
  return isObject(value) && PARTS[name].every(part => part in value)
}

async function callBy<N extends LinkRoute>(
  fetch: Fetch,
  name: N,
  parts: Parts,
): Promise<AnswerOf<Called<N>>> {
  const answer = await request(fetch, LINK_ROUTES[name], parts)
  if (!isAnswer(name, answer)) throw new Error(`What came back for ${name} is not what the server says.`)
  return answer
}

/**
 * Calls what the page behind a link may call.
 * @throws the server's refusal, or that it can't be reached, as `refusalOf` reads it
 */
export function callLink<N extends LinkRoute>(
  name: N,
  parts: RequestOf<Called<N>>,
): Promise<AnswerOf<Called<N>>>
export function callLink(name: LinkRoute, parts: Parts): Promise<unknown> {
  return callBy(plainFetch, name, parts)
}

/** The same while the page is made on the server. */
export function useLinkApi(): typeof callLink {
  const fetch = useRequestFetch()
  function call<N extends LinkRoute>(name: N, parts: RequestOf<Called<N>>): Promise<AnswerOf<Called<N>>>
  function call(name: LinkRoute, parts: Parts): Promise<unknown> {
    return callBy((address, options) => fetch<unknown, string>(address, options), name, parts)
  }
  return call
}

/** Sends a file. */
export const sendFile = (parts: Omit<RequestOf<Called<'giveFile'>>, 'body'>, file: Blob) =>
  callBy(plainFetch, 'giveFile', { ...parts, body: file })

import { z } from 'zod'
import * as keys from './accessKeys'
import { Id } from './ids'
import { FileContent } from './responses'
import * as session from './session'

const OneKey = Id.extend({ issued: z.uuid() })

/** What other programs ask, each with a key of one form (`Authorization: Bearer …`, RFC 6750). */
export const PROGRAM_ENDPOINTS = {
  listByKey: {
    method: 'GET',
    path: '/api/v1/responses',
    query: keys.ApiQuery,
    answer: keys.ApiResponses,
  },
  loadByKey: {
    method: 'GET',
    path: '/api/v1/responses/:number',
    params: keys.ApiNumber,
    answer: keys.ApiResponse,
  },
  sendByKey: {
    method: 'POST',
    path: '/api/v1/responses',
    body: keys.ApiSending,
    answer: keys.ApiSent,
  },
  listHooksByKey: { method: 'GET', path: '/api/v1/hooks', answer: keys.ApiHooks },
  makeHookByKey: { method: 'POST', path: '/api/v1/hooks', body: keys.NewHook, answer: keys.MadeHook },
  removeHookByKey: {
    method: 'DELETE',
    path: '/api/v1/hooks/:hook',
    params: keys.HookId,
    answer: session.Done,
  },
} as const

/** Live addresses and keys, and what is asked with them. */
export const OUTSIDE_ENDPOINTS = {
  listAccessKeys: {
    method: 'GET',
    path: '/api/forms/:id/access-keys',
    params: Id,
    answer: z.array(keys.AccessKey),
  },
  makeAccessKey: {
    method: 'POST',
    path: '/api/forms/:id/access-keys',
    params: Id,
    body: keys.NewAccessKey,
    answer: keys.MadeAccessKey,
  },
  removeAccessKey: {
    method: 'DELETE',
    path: '/api/forms/:id/access-keys/:issued',
    params: OneKey,
    answer: session.Done,
  },
  readLive: { method: 'GET', path: '/api/live/:secret', params: keys.LiveAddress, answer: FileContent },
  describeApi: { method: 'GET', path: '/api/v1/openapi.json', answer: z.record(z.string(), z.unknown()) },
  ...PROGRAM_ENDPOINTS,
} as const

import { z } from 'zod'
import { HookAddress } from '../../core/form/deliveries'
import { ResponseFilter } from './responses'
import { AnyAnswers } from './stored'

/** An address at which a table of responses is always as they are now; or a key for programs. */
export const KEY_KINDS = ['live', 'api'] as const
/** What a key allows a program: to read responses, to send some in. */
export const KEY_RIGHTS = ['read', 'send'] as const

const Name = z.string().trim().min(1, 'a name is needed').max(80)

/** A live address of the responses that a filter leaves, or a key of the API. */
export const NewAccessKey = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('live'), name: Name, filter: ResponseFilter }),
  z.strictObject({ kind: z.literal('api'), name: Name, rights: z.array(z.enum(KEY_RIGHTS)).min(1).max(2) }),
])
export type NewAccessKey = z.infer<typeof NewAccessKey>
/** The secret, shown this once. */
export const MadeAccessKey = z.object({ id: z.string(), secret: z.string() })

/** A key as it is listed: how often and when last it was used. */
export const AccessKey = z.object({
  id: z.string(),
  kind: z.enum(KEY_KINDS),
  name: z.string(),
  rights: z.array(z.enum(KEY_RIGHTS)),
  by: z.string(),
  madeAt: z.string(),
  usedAt: z.string().nullable(),
  uses: z.int(),
})
export type AccessKey = z.infer<typeof AccessKey>

/** The end of a live address: its secret, and as what the table comes. */
export const LiveAddress = z.object({ secret: z.string().regex(/^[\w-]{20,60}\.(?:csv|json)$/) })

/** Which responses a program reads: a page from 1 on, the oldest first; `after`: those with a greater number. */
export const ApiQuery = z.object({
  page: z.coerce.number().int().min(1).max(1_000_000).default(1),
  size: z.coerce.number().int().min(1).max(500).default(100),
  after: z.coerce.number().int().min(0).max(2_000_000_000).default(0),
})
/** A response as programs read it; `answers` by the codes of its own version. */
export const ApiResponse = z.object({
  number: z.int(),
  version: z.int(),
  state: z.enum(['in progress', 'to be paid', 'done', 'withdrawn']),
  begunOn: z.string(),
  sentAt: z.string(),
  correctedAt: z.string().nullable(),
  answers: AnyAnswers,
})
export const ApiResponses = z.object({ count: z.int(), responses: z.array(ApiResponse) })
export const ApiNumber = z.object({ number: z.coerce.number().int().min(1).max(2_000_000_000) })
/** A response that a program sends in. `key`: the same for each try, so that it is stored once; `version`: the number of the version that it is filled by. */
export const ApiSending = z.strictObject({
  key: z.string().regex(/^[\w-]{8,60}$/, 'a key has 8 to 60 letters, digits, “_” or “-”'),
  version: z.int().min(1),
  answers: AnyAnswers,
})
export const ApiSent = z.object({ number: z.int(), sentAt: z.string() })

/** On what a program is told of a response: it is sent, handed on, done or corrected. */
export const HOOK_EVENTS = ['sent', 'handedOn', 'done', 'corrected'] as const
/** A web hook of a program: on what, and the address that is called with the response as JSON. */
export const NewHook = z.strictObject({ on: z.enum(HOOK_EVENTS), address: HookAddress })
/** A web hook as it stands. */
export const ApiHook = NewHook.extend({ id: z.string() })
/** `secret`: by what its calls are signed (HMAC with SHA-256 of the body, in `x-tobbin-signature`). */
export const MadeHook = ApiHook.extend({ secret: z.string() })
export const ApiHooks = z.object({ hooks: z.array(ApiHook) })
export const HookId = z.object({ hook: z.uuid() })

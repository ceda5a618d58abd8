import { z } from 'zod'
import { NewPassword, Person, PersonName, Role } from './people'

/** Signing in; `code`: of the second factor, where somebody has one. */
export const SignIn = z.strictObject({
  email: z.string().max(200),
  password: z.string().max(200),
  code: z.string().max(12).optional(),
})

/** Who is signed in, as far as their own browser is told. */
export const Designer = z.object({ id: z.string(), name: z.string(), email: z.string(), role: Role })
export type Designer = z.infer<typeof Designer>

export const SignedIn = z.object({ user: Designer })

/** A request that was carried out and has nothing to say. */
export const Done = z.object({ done: z.literal(true) })

/** The password is forgotten: where a link is to be sent. */
export const ForgottenPassword = z.strictObject({ email: z.string().max(200) })
/** A key out of a link that was posted. */
export const OneTimeKey = z.object({ key: z.string().regex(/^[\w-]{1,80}$/) })
/** What such a key opens. */
export const OpenedKey = z.object({ kind: z.enum(['invite', 'reset']), name: z.string(), email: z.string() })
export const ChoosePassword = z.strictObject({ password: NewPassword })

/** A browser that somebody is signed in with. */
export const OpenSession = z.object({
  id: z.string(),
  openedAt: z.string(),
  seenAt: z.string(),
  source: z.string(),
  agent: z.string(),
  isThis: z.boolean(),
})
export type OpenSession = z.infer<typeof OpenSession>
/** One's own account. */
export const Account = Person.pick({ name: true, email: true, role: true, hasSecondFactor: true }).extend({
  sessions: z.array(OpenSession),
})
export const ChangeAccount = z.strictObject({ name: PersonName })
export const ChangePassword = z.strictObject({ old: z.string().max(200), password: NewPassword })
/** What has to be typed before a second factor is begun or taken away. */
export const OwnPassword = z.strictObject({ password: z.string().max(200) })
/** A second factor that waits for its first code: the secret as text, as an address (Key URI) and as a picture. */
export const BegunFactor = z.object({ secret: z.string(), uri: z.string(), picture: z.string() })
export const FactorCode = z.strictObject({ code: z.string().max(12) })

/** A job of the background: when it was done last (null: not yet, or long ago), and whether the last try failed. */
export const JobState = z.object({ name: z.string(), doneAt: z.string().nullable(), failedLast: z.boolean() })
export type JobState = z.infer<typeof JobState>

/** How the server is: answered with 503 where the store is away. `migrations`: how many are applied; `jobs`: the background work. */
export const Health = z.object({
  store: z.literal('open'),
  migrations: z.int(),
  jobs: z.array(JobState),
})

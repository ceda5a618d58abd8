import { z } from 'zod'

/** Signing in. */
export const SignIn = z.strictObject({ email: z.string().max(200), password: z.string().max(200) })

/** Who is signed in: what the session cookie holds. */
export const Designer = z.object({ id: z.string(), name: z.string(), email: z.string() })
export type Designer = z.infer<typeof Designer>

export const SignedIn = z.object({ user: Designer })

/** A request that was carried out and has nothing to say. */
export const Done = z.object({ done: z.literal(true) })

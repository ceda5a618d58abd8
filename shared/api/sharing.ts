import { z } from 'zod'

/** What may be done with a form. `own`: everything, and sharing it; `design`: write it; `suggest`: remark on it and propose edits; `release`; `responses`: see them; `act`: take turns. */
export const RIGHTS = ['own', 'design', 'suggest', 'release', 'responses', 'act'] as const
export const Right = z.enum(RIGHTS)
export type Right = z.infer<typeof Right>

/** What rights allow: `read` is seeing the draft, its history and its releases. */
export const Power = z.enum([...RIGHTS, 'read'])
export type Power = z.infer<typeof Power>

/** Whom a right belongs to. */
export const Holder = z.strictObject({ kind: z.enum(['person', 'team']), id: z.uuid() })
export type Holder = z.infer<typeof Holder>

/** With whom a form is shared. `name`: of the person or team; `email` of a person. */
export const Share = z.object({
  holder: Holder,
  name: z.string(),
  email: z.string().nullable(),
  rights: z.array(Right),
})
export type Share = z.infer<typeof Share>

/** Gives somebody exactly these rights; none takes them all away. */
export const ShareForm = z.strictObject({ holder: Holder, rights: z.array(Right).max(RIGHTS.length) })

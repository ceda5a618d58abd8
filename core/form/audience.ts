import { z } from 'zod'
import type { Form } from './definition'
import { listPlaces } from './walk'

/** Who may answer: everybody; who is signed in; who is signed in under one of some addresses, or is in a team; who has a personal link. */
export const AUDIENCES = ['all', 'signedIn', 'listed', 'team', 'invited'] as const

/**
 * Who may answer a form, and how often. `listed`: e-mail addresses; `team`: the name of a team; `each`: responses of one person, who is known by
 * a personal link or by signing in; `isAnonymous`: nothing of whoever answers is kept with a response; `perHour`: responses from one source in an
 * hour; `isGuarded`: a browser has to reckon for a moment before it sends, which programs that send many find dear.
 */
export const Audience = z.strictObject({
  who: z.enum(AUDIENCES).default('all'),
  listed: z.array(z.email().max(200).toLowerCase()).max(500).default([]),
  team: z.string().max(200).default(''),
  each: z.int().min(1).max(1_000).nullable().default(null),
  isAnonymous: z.boolean().default(false),
  perHour: z.int().min(1).max(100_000).nullable().default(null),
  isGuarded: z.boolean().default(false),
})
export type Audience = z.infer<typeof Audience>

/** Why responses to a form can’t be anonymous: something in it tells who answers; null where they can. */
export function namesRespondents(form: Form): string | null {
  if ((form.turns ?? []).length > 0)
    return 'its turns are handed on by links, which are kept with the response'
  const hidden = listPlaces(form).find(
    ({ node }) => 'kind' in node && node.kind === 'question' && node.type === 'hidden',
  )
  return hidden ? `“${hidden.code}” takes what the link says of whoever opens it` : null
}

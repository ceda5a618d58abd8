import { z } from 'zod'
import { AnyAnswers } from './stored'

/** What can happen to a response. */
export const EVENT_KINDS = [
  'sent',
  'corrected',
  'returned',
  'reassigned',
  'taken over',
  'reminded',
  'escalated',
  'taken back',
  'withdrawn',
  'link made',
  'links revoked',
  'sorted',
  'noted',
  'deleted',
  'put back',
  'stripped',
  'paid',
  'payment refused',
  'paid back',
  'document made',
  'signed',
] as const
export type EventKind = (typeof EVENT_KINDS)[number]

/**
 * What belongs to it. `target`: the code of the turn that it went to, null where the response was done; `to`: the addresses of those who are to
 * act then, or who was told; `remark`: what was said, of `sorted` the name of the tray; `before`: what stood in the answers that it changed, null where nothing did.
 */
export const EventDetails = z.object({
  target: z.string().nullable().optional(),
  to: z.array(z.string()).optional(),
  remark: z.string().optional(),
  before: AnyAnswers.optional(),
})
export type EventDetails = z.infer<typeof EventDetails>

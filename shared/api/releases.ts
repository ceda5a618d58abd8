import { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import { Counter, StoredFinding } from './stored'

const Note = z.string().trim().max(LIMITS.text)

/** A release of the draft as the browser knows it, with what is said to it; its risks have been accepted before. */
export const NewRelease = z.strictObject({
  revision: Counter,
  note: Note.default(''),
  /** The codes whose words are all others than in the version before, and that mean the same (`meaningKey`). */
  sameMeanings: z.array(z.string().max(200)).max(10_000).default([]),
})
/** Asks that somebody else approves a state of the draft. */
export const AskApproval = NewRelease.omit({ sameMeanings: true })

/** That somebody asks for approval: of which state of the draft, who, when, and what they say to it. */
export const ApprovalAsked = z.object({
  revision: z.int(),
  note: z.string(),
  by: z.string(),
  name: z.string(),
  at: z.string(),
})
export type ApprovalAsked = z.infer<typeof ApprovalAsked>

/** What a proof decided: how many rules, goals by example and by proof, and what stayed undecided. */
export const ProofTally = z.object({
  rules: z.int(),
  byExample: z.int(),
  byProof: z.int(),
  undecided: z.int(),
})

/** A release’s proof, made once more: what it decided, and in what it differs from the one that was kept. */
export const CheckedProof = z.object({
  tally: ProofTally,
  /** What was found now and not then, and then and not now, as sentences. */
  fresh: z.array(z.string()),
  gone: z.array(z.string()),
})
export type CheckedProof = z.infer<typeof CheckedProof>

export const Released = z.object({ number: z.int(), token: z.string() })

/** A risk that somebody answers for, as a release keeps it. */
export const AcceptedRisk = z.object({ finding: StoredFinding, reason: z.string(), by: z.string() })
export type AcceptedRisk = z.infer<typeof AcceptedRisk>

/** Responses in progress at a turn of a release: how many, since when the oldest, and what the draft makes of the turn. */
export const TurnUnderWay = z.object({
  release: z.int(),
  name: z.string(),
  count: z.int(),
  since: z.string(),
  change: z.enum(['same', 'changed', 'gone']),
})
export type TurnUnderWay = z.infer<typeof TurnUnderWay>

/** What a version would make of the responses that are stored: how many were weighed, how many would lack something, hold what doesn’t fit, or what is not asked; and the newest of them. */
export const StoredFit = z.object({
  /** Whether all were weighed. */
  isAll: z.boolean(),
  weighed: z.int(),
  missing: z.int(),
  wrong: z.int(),
  unasked: z.int(),
  lines: z.array(
    z.object({
      id: z.string(),
      number: z.int(),
      release: z.int(),
      isDone: z.boolean(),
      misfits: z.array(
        z.object({ kind: z.enum(['missing', 'wrong', 'unasked']), label: z.string(), sentence: z.string() }),
      ),
      /** So many more are not told. */
      more: z.int(),
    }),
  ),
})
export type StoredFit = z.infer<typeof StoredFit>

/** A release as designers see it in a list. */
export const ReleaseBrief = z.object({
  id: z.string(),
  number: z.int(),
  token: z.string(),
  releasedAt: z.string(),
  withdrawnAt: z.string().nullable(),
  /** The state of the draft that was released; null for releases of which that is not known. */
  revision: z.int().nullable(),
  sameAsDraft: z.boolean(),
  accepted: z.array(AcceptedRisk),
  note: z.string(),
  /** The names of who released it, and of who had asked for it; empty where that is not known, or nobody had. */
  releasedBy: z.string(),
  askedBy: z.string(),
})
export type ReleaseBrief = z.infer<typeof ReleaseBrief>

/** So long may what an acceptance keeps of the form be: a name and a digest for each part that it rests on. */
const MOST_BASIS = 100_000

/** A risk of a draft, accepted with a reason; without one the acceptance is taken back. `key` and `basis`: which risk, and the state of what it rests on. */
export const Accepting = z.strictObject({
  key: z.string().min(1).max(LIMITS.text),
  basis: z.string().max(MOST_BASIS),
  reason: z.string().trim().max(LIMITS.text),
})

/** An acceptance of a risk of a draft. */
export const Acceptance = z.object({
  key: z.string(),
  basis: z.string(),
  reason: z.string(),
  by: z.string(),
  at: z.string(),
})

import { z } from 'zod'
import { FoundRow } from './answering'
import { AnyAnswers, Counter } from './stored'

/** Rows of long lists that were chosen, by list: as the page knows them. */
const KeptRows = z.record(z.string().max(200), z.array(FoundRow).max(200))
const PageKey = z.string().min(8).max(80)

/** What a respondent’s page needs to go on on another device: answers as far as they were typed, when it was begun, and where it stands. */
export const KeptAnswers = z.strictObject({
  release: Counter.min(1),
  key: PageKey,
  begunOn: z.iso.date(),
  answers: AnyAnswers,
  place: z.strictObject({ section: Counter, only: Counter.nullable() }),
  rows: KeptRows,
})
export type KeptAnswers = z.infer<typeof KeptAnswers>

const Secret = z.string().min(16).max(80)
/** `secret` null: they are kept for the first time. `base`: when they were kept that these go on from; a newer state is not overwritten. `kept` null: they were sent, and are dropped. */
export const AnswersToKeep = z.strictObject({
  secret: Secret.nullable(),
  base: z.string().max(40).nullable(),
  kept: KeptAnswers.nullable(),
})
export type AnswersToKeep = z.infer<typeof AnswersToKeep>
export const WhereKept = z.object({ secret: z.string(), at: z.string() })

/** Asks for what is kept under a secret. */
export const Recalling = z.strictObject({ secret: Secret })
export const Recalled = z.object({ kept: KeptAnswers, at: z.string() })

/** Posts the link by which they are gone on with. */
export const MailKept = z.strictObject({ secret: Secret, to: z.email().max(200) })

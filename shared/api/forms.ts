import { z } from 'zod'
import { Edit } from '../../core/form/edits'
import { LIMITS } from '../../core/form/limits'
import { NamedLook } from './looks'
import { Workspace } from './people'
import { Acceptance, ReleaseBrief } from './releases'
import { Power } from './sharing'
import { Counter, CounterInAddress, StoredEdits, StoredForm } from './stored'

/** A new form: by its title, or a whole definition (read and reported on by itself). */
export const NewForm = z.union([
  z.strictObject({ title: z.string().trim().min(1, 'a form needs a title').max(LIMITS.label) }),
  z.strictObject({ definition: z.unknown() }),
])
export const CreatedForm = z.object({ id: z.string() })

/** What home shows of a form; `release` and `responses` are 0 where there are none, `responses` null for those who may not see them. `suggestions`: those that wait for who asks. */
export const FormBrief = z.object({
  id: z.string(),
  title: z.string(),
  code: z.string(),
  savedAt: z.string(),
  questions: z.int(),
  release: z.int(),
  responses: z.int().nullable(),
  tags: z.array(z.string()),
  isArchived: z.boolean(),
  suggestions: z.int(),
  powers: z.array(Power),
})
export type FormBrief = z.infer<typeof FormBrief>

/** A copy of a form, with a title of its own. */
export const CopyForm = z.strictObject({ title: z.string().trim().min(1).max(LIMITS.label) })

/** How a form is filed: its tags, and whether it is put away. */
export const Filing = z.strictObject({
  tags: z.array(z.string().trim().min(1).max(LIMITS.tag)).max(LIMITS.tags),
  isArchived: z.boolean(),
})
export type Filing = z.infer<typeof Filing>

/** Deletes a form; with responses only when its title is typed. */
export const DeleteForm = z.object({ confirmed: z.string().max(LIMITS.label).default('') })

/** A form as somebody opens it; `responses` counts those to all releases, null for those who may not see them. `powers`: what this person may do. */
export const LoadedForm = z.object({
  id: z.string(),
  draft: StoredForm,
  revision: z.int(),
  savedAt: z.string(),
  releases: z.array(ReleaseBrief),
  responses: z.int().nullable(),
  powers: z.array(Power),
  accepted: z.array(Acceptance),
  workspace: Workspace,
  looks: z.array(NamedLook),
})
export type LoadedForm = z.infer<typeof LoadedForm>

/** Edits of a draft, on top of the revision that the browser knows. */
export const SaveEdits = z.strictObject({ base: Counter, edits: z.array(Edit).min(1).max(1_000) })
export const SavedEdits = z.object({ revision: z.int(), savedAt: z.string() })

/** Which changes are asked for: those after a revision. */
export const ChangesSince = z.object({ since: CounterInAddress })
/** A save of a draft: what was changed, by whom, and whether by the one who asks. */
export const Change = z.object({ revision: z.int(), edits: StoredEdits, by: z.string(), own: z.boolean() })
export type Change = z.infer<typeof Change>

/** Every save of a draft, the newest first; `canLook`: earlier states can be built again. */
export const History = z.object({
  canLook: z.boolean(),
  begunAt: z.string(),
  saves: z.array(
    z.object({
      revision: z.int(),
      at: z.string(),
      by: z.string(),
      edits: z.array(z.object({ do: z.string(), what: z.string() })),
    }),
  ),
})
export type History = z.infer<typeof History>

/** A draft as it was. */
export const DraftState = z.object({ form: StoredForm })

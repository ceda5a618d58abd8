import { z } from 'zod'
import { ChoiceList } from '../../core/form/choiceLists'
import { Code } from '../../core/form/fields'
import { Counter, StoredList } from './stored'

/** The code of a list in an address. */
export const ListCode = z.object({ code: Code })

/** A list for all forms, on top of the revision that the browser knows (0: a new one). `from`: the form that has it already. */
export const SaveShared = z.strictObject({ base: Counter, from: z.uuid(), list: ChoiceList })
/** The new revision, and the titles of the forms that were changed with it. */
export const SavedShared = z.object({ revision: z.int(), changed: z.array(z.string()) })

/** A list of the workspace, with whom it touches: drafts that follow it, and releases that keep the rows of their time. */
export const SharedListBrief = z.object({
  code: z.string(),
  title: z.string(),
  rows: z.int(),
  revision: z.int(),
  savedAt: z.string(),
  usedBy: z.array(z.object({ id: z.string(), title: z.string(), releases: z.array(z.int()) })),
})
export type SharedListBrief = z.infer<typeof SharedListBrief>

export const SharedList = z.object({ list: StoredList, revision: z.int() })

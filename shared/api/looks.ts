import { z } from 'zod'
import { Look } from '../../core/form/look'

const Name = z.string().trim().min(1, 'a look has a name').max(100)

/** A look as the workspace keeps it: under its name. */
export const NamedLook = Look.extend({ name: Name })
export type NamedLook = z.infer<typeof NamedLook>
/** Which look is meant. */
export const LookByName = z.object({ name: Name })

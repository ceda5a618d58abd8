import { z } from 'zod'

/** What an address names by its id. */
export const Id = z.object({ id: z.uuid() })

import { customType, timestamp, uuid } from 'drizzle-orm/pg-core'
import type { z } from 'zod'

/** The key of a row. */
export const id = () => uuid('id').primaryKey().defaultRandom()
/** JSON that is read by a schema whenever it comes out of the store: what does not fit is an error that names the problem. */
export const json = <T extends z.ZodType>(name: string, schema: T) =>
  customType<{ data: z.output<T>; driverData: unknown }>({
    dataType: () => 'jsonb',
    toDriver: value => JSON.stringify(value),
    fromDriver: value => schema.parse(value),
  })(name)
/** Bytes as they are. */
export const bytes = customType<{ data: Uint8Array; driverData: Uint8Array }>({ dataType: () => 'bytea' })
/** When something was, from the beginning on. */
export const at = (name: string) =>
  timestamp(name, { withTimezone: true, mode: 'date' }).notNull().defaultNow()
/** When something will have been; null until then. */
export const maybeAt = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })

import { z } from 'zod'

/**
 * A backup is a tar archive (POSIX.1-2001), compressed with gzip (RFC 1952): `backup.json`, which says what follows; then of each table
 * `tables/NAME.jsonl`, a row on a line as PostgreSQL writes it as JSON; then `files/ID`, as they were given.
 */
export const Head = z.strictObject({
  backup: z.literal('tobbin'),
  format: z.literal(1),
  madeAt: z.iso.datetime(),
  /** How many migrations the store had. */
  migrations: z.int().positive(),
  /** The tables in the order in which they are filled, with their rows. */
  tables: z.array(z.strictObject({ name: z.string().regex(/^[a-z_]{1,60}$/), rows: z.int().nonnegative() })),
  files: z.int().nonnegative(),
})
export type Head = z.infer<typeof Head>

export const HEAD = 'backup.json'
export const tableEntry = (name: string) => `tables/${name}.jsonl`
export const fileEntry = (id: string) => `files/${id}`
/** What an entry of the archive holds; null for one that is not of ours. */
export function readEntryName(name: string): { kind: 'table' | 'file'; name: string } | null {
  const table = /^tables\/([a-z_]{1,60})\.jsonl$/.exec(name)?.[1]
  if (table) return { kind: 'table', name: table }
  const file = /^files\/([0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12})$/.exec(name)?.[1]
  return file ? { kind: 'file', name: file } : null
}

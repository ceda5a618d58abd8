import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { MigrationFiles } from './database'

const FOLDER = fileURLToPath(new URL('./migrations', import.meta.url))

/** The migrations as they stand in the sources: for what runs outside of the built server. */
export async function readMigrations(): Promise<MigrationFiles> {
  const entries = await readdir(FOLDER, { recursive: true, withFileTypes: true })
  const paths = entries.filter(e => e.isFile()).map(e => join(e.parentPath, e.name))
  const files = paths.map(async path => [path.slice(FOLDER.length + 1), await readFile(path, 'utf8')])
  return Object.fromEntries(await Promise.all(files))
}

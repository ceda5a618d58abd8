import { resolve } from 'node:path'
import { readEnvironment } from '../server/environment'
import { RestoreError, restoreBackup } from '../server/services/backup/restoreBackup'
import { BackupError, sayBackup, writeBackup } from '../server/services/backup/writeBackup'
import { askServer } from '../server/store/control'
import { connectServer, openStore, type Store } from '../server/store/database'
import { useFileFolder } from '../server/store/fileFolder'
import { readMigrations } from '../server/store/migrationFiles'

type Variables = Readonly<Record<string, string | undefined>>
type Write = (text: string) => void

/** The one file that the arguments name; null when they name none, or more. */
const readPath = ([file, ...more]: readonly string[]): string | null =>
  file === undefined || more.length > 0 ? null : resolve(file)

/**
 * `tobbin backup FILE`: everything that the store keeps, and all files, in one file, also while the server runs.
 * @returns the exit code: 0 done, 1 it failed, 2 called wrongly
 */
export async function backupCommand(
  args: readonly string[],
  usage: string,
  write: Write,
  variables: Variables = process.env,
): Promise<number> {
  const path = readPath(args)
  if (path === null) {
    write(usage)
    return 2
  }
  const folder = variables.NUXT_DATA_FOLDER ?? 'data'
  const url = readEnvironment(variables).databaseUrl
  const asked = url ? null : await askServer(folder, { do: 'backup', path })
  if (asked) {
    write(`${asked.text}\n`)
    return asked.done ? 0 : 1
  }
  useFileFolder(folder)
  const store = await openQuietly(url, folder)
  try {
    write(`${sayBackup(path, await writeBackup(store.db, path))}\n`)
    return 0
  } catch (error) {
    if (!(error instanceof BackupError)) throw error
    write(`${error.message}\n`)
    return 1
  } finally {
    await store.close()
  }
}

/** A server may be running on PostgreSQL, perhaps an older one: nothing is changed there. */
async function openQuietly(url: string | undefined, folder: string): Promise<Store> {
  if (url) return connectServer(url)
  return openStore({ url, folder, migrations: await readMigrations(), first: () => Promise.resolve() })
}

/**
 * `tobbin restore FILE`: brings a backup back into an empty data folder or database, of either kind.
 * @returns the exit code: 0 done, 1 refused, and nothing was changed, 2 called wrongly
 */
export async function restoreCommand(
  args: readonly string[],
  usage: string,
  write: Write,
  variables: Variables = process.env,
): Promise<number> {
  const path = readPath(args)
  if (path === null) {
    write(usage)
    return 2
  }
  const folder = variables.NUXT_DATA_FOLDER ?? 'data'
  useFileFolder(folder)
  try {
    const { tables, files, madeAt } = await restoreBackup(path, {
      url: readEnvironment(variables).databaseUrl,
      folder,
      migrations: await readMigrations(),
    })
    const rows = tables.reduce((sum, t) => sum + t.rows, 0)
    write(`Brought back what was kept on ${madeAt}: ${rows} rows and ${files} files.\n`)
    return 0
  } catch (error) {
    if (!(error instanceof RestoreError)) throw error
    write(`${error.message}\n`)
    return 1
  }
}

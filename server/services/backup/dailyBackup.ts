import { readdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { Database } from '../../store/database'
import { writeBackup } from './writeBackup'

const NAME = /^tobbin-\d{4}-\d\d-\d\d\.backup$/

/** What the backup of a day is called. */
export const dailyName = (now: Date): string => `tobbin-${now.toISOString().slice(0, 10)}.backup`

/** Makes the backup of a day, and deletes the oldest daily ones beyond `kept`. Other files in the folder are left alone. */
export async function keepDailyBackups(
  db: Database,
  folder: string,
  kept: number,
  now = new Date(),
): Promise<void> {
  await writeBackup(db, join(folder, dailyName(now)))
  const old = await listDailyBackups(folder)
  for (const name of old.slice(0, -kept)) await rm(join(folder, name))
}

/** The daily backups of a folder, the oldest first. */
export async function listDailyBackups(folder: string): Promise<string[]> {
  try {
    return (await readdir(folder)).filter(name => NAME.test(name)).sort()
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return []
    throw error
  }
}

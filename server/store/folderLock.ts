import { readFile, rm, writeFile } from 'node:fs/promises'
import { hostname } from 'node:os'
import { join } from 'node:path'
import { lock } from 'proper-lockfile'

/** A lock that nobody has renewed for so long belongs to a process that is gone. */
const STALE = 30_000
const RENEW_EVERY = 5_000

/**
 * Keeps a second process out of a folder: two on one embedded database lose rows silently. The lock is a folder in the folder, so it holds
 * through symbolic links, in containers that share it, and on every system.
 * @returns how it is let go
 * @throws when another process has it
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const lockfilePath = join(folder, 'in-use')
  const owner = join(folder, 'in-use-by.json')
  if (await isLeftBehind(owner)) await rm(lockfilePath, { recursive: true, force: true })
  try {
    const release = await lock(folder, {
      lockfilePath,
      stale: STALE,
      update: RENEW_EVERY,
      onCompromised: error => {
        console.error(`The data folder “${folder}” is no longer held by this process: ${error.message}`)
        process.exit(1)
      },
    })
    await writeFile(owner, JSON.stringify({ host: hostname(), process: process.pid }), { mode: 0o600 })
    return release
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code !== 'ELOCKED') throw error
    throw new Error(
      `The data folder “${folder}” is open in another Tobbin. Stop that one first, or set NUXT_DATA_FOLDER to another folder.`,
    )
  }
}

/** Whether the process that had the lock last was on this machine, and is gone: then nobody needs to wait until the lock is stale. */
async function isLeftBehind(owner: string): Promise<boolean> {
  try {
    const { host, process: id } = JSON.parse(await readFile(owner, 'utf8'))
    if (host !== hostname() || !Number.isInteger(id)) return false
    return id !== process.pid && !isRunning(id)
  } catch {
    return false // nobody has said who it is
  }
}

function isRunning(id: number): boolean {
  try {
    process.kill(id, 0)
    return true
  } catch (error) {
    return error instanceof Error && 'code' in error && error.code === 'EPERM'
  }
}

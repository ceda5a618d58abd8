import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { endThreads, useThreads } from '../threads/run'

/** The folder of the built code around this: put in when it is built (nuxt.config.ts). */
declare const FOLDER_OF_CHUNK: string

/** How many folders above this code the worker's file is looked for. */
const HIGHEST = 4

/** The built file of the worker threads: it stands at the top of the built server, this code somewhere below. */
function findWorker(): string {
  let folder = FOLDER_OF_CHUNK
  for (let i = 0; i < HIGHEST; i++) {
    const file = join(folder, 'worker.mjs')
    if (existsSync(file)) return file
    folder = dirname(folder)
  }
  throw new Error('The server is not built whole: worker.mjs is missing.')
}

export default defineNitroPlugin(nitro => {
  // While the code is worked on, there is no built worker: tasks are done where they are asked for.
  if (import.meta.dev) return
  useThreads(findWorker())
  nitro.hooks.hook('close', endThreads)
})

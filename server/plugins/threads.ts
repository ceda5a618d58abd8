import { realpathSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { endThreads, useThreads } from '../work/run'

export default defineNitroPlugin(nitro => {
  // While the code is worked on, there is no built worker: tasks are done where they are asked for.
  if (import.meta.dev) return
  const started = process.argv[1]
  if (!started) throw new Error('The server does not know where its files are.')
  useThreads(join(dirname(realpathSync(started)), 'worker.mjs'))
  nitro.hooks.hook('close', endThreads)
})

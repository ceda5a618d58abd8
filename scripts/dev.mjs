// npm run dev: the same application with reloading, on its own data folder.
import { resolve } from 'node:path'
import { bin, checkNode, install, root, run, sessionPassword } from './prepare.mjs'

checkNode()
await install()
const data = resolve(root, process.env.NUXT_DATA_FOLDER ?? 'data/dev')
process.exitCode = await run(bin('nuxt'), ['dev', '--no-fork', ...process.argv.slice(2)], {
  NUXT_DATA_FOLDER: data,
  NUXT_DEMO: 'yes',
  NUXT_SESSION_PASSWORD: sessionPassword(data),
})

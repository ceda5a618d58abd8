// npm run demo: installs, builds, migrates, loads the demo data into an empty store, serves.
import { createServer } from 'node:net'
import { resolve } from 'node:path'
import { build, checkNode, install, root, sessionPassword } from './prepare.mjs'

const HELP = `npm run demo -- [--port N] [--data FOLDER]

  --port N       serve on port N (default 4870, or PORT)
  --data FOLDER  keep the data in FOLDER (default: data)
  DATABASE_URL   use a PostgreSQL server in place of the embedded database
`

const option = (name, fallback) => {
  const at = process.argv.indexOf(name)
  return at < 0 ? fallback : process.argv[at + 1]
}

if (process.argv.includes('--help')) {
  console.log(HELP)
  process.exit(0)
}
checkNode()
const port = Number(option('--port', process.env.PORT ?? 4870))
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(
    `“${option('--port', process.env.PORT)}” is no port; a port is a number from 1 to 65535.\n\n${HELP}`,
  )
  process.exit(1)
}
await refuseBusyPort(port)
await install()
await build()
const data = resolve(root, option('--data', process.env.NUXT_DATA_FOLDER ?? 'data'))
Object.assign(process.env, {
  PORT: String(port),
  HOST: process.env.HOST ?? '127.0.0.1',
  NITRO_PORT: String(port),
  NODE_ENV: 'production',
  NUXT_DATA_FOLDER: data,
  NUXT_DEMO: 'yes',
  NUXT_SESSION_PASSWORD: process.env.NUXT_SESSION_PASSWORD ?? sessionPassword(data),
})
await import('../.output/server/index.mjs')
await answering(port)
console.log(`
  Tobbin is open at  http://localhost:${port}
  Sign in as         ines@wherry.example  with  wherry-reach  (may do everything)
  or, alike, as      tobias@wherry.example (makes forms), office@wherry.example and lift@wherry.example
                     (take turns of the yard), surveyor@wherry.example (takes turns of the surveyor)
  A form to answer   http://localhost:${port}/f/demo_haul_out
  Data folder        ${process.env.DATABASE_URL ? 'a PostgreSQL server (DATABASE_URL)' : data}
`)

function refuseBusyPort(number) {
  return new Promise(free => {
    const probe = createServer()
    probe.once('error', () => {
      console.error(
        `Port ${number} is in use. Stop what uses it, or choose another: npm run demo -- --port ${number + 1}`,
      )
      process.exit(1)
    })
    probe.listen(number, process.env.HOST ?? '127.0.0.1', () => probe.close(free))
  })
}

/** Waits until the server answers: opening and filling a new store takes some seconds. */
async function answering(number) {
  for (;;) {
    const answered = await fetch(`http://127.0.0.1:${number}/api/answer/none`).then(
      r => r.status === 404,
      () => false,
    )
    if (answered) return
    await new Promise(again => setTimeout(again, 200))
  }
}

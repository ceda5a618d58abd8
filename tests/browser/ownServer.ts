import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const freePort = () =>
  new Promise<number>(done => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })

/** The built application as a process of its own with a store of its own: its address, what it printed, and its end. */
export async function startServer({ demo = false, heap = 0, env = {} } = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'tobbin-own-'))
  const port = await freePort()
  const options = heap > 0 ? [`--max-old-space-size=${heap}`] : []
  const child = spawn(process.execPath, [...options, '.output/server/index.mjs'], {
    env: {
      ...process.env,
      PORT: String(port),
      NITRO_PORT: String(port),
      HOST: '127.0.0.1',
      NODE_ENV: 'production',
      NUXT_DATA_FOLDER: join(folder, 'data'),
      NUXT_DEMO: demo ? 'yes' : '',
      NUXT_SESSION_PASSWORD: 'a password of this test alone, long enough',
      DATABASE_URL: '',
      ...env,
    },
  })
  let printed = ''
  child.stdout.on('data', data => (printed += String(data)))
  child.stderr.on('data', data => (printed += String(data)))
  const url = `http://localhost:${port}`
  const isUp = () =>
    fetch(`${url}/api/set-up`).then(
      r => r.ok,
      () => false,
    )
  while (!(await isUp())) {
    if (child.exitCode !== null) throw new Error(`The server did not start: ${printed}`)
    await new Promise(again => setTimeout(again, 200))
  }
  const stop = async () => {
    if (child.exitCode === null && child.signalCode === null) {
      child.kill('SIGTERM')
      await once(child, 'exit')
    }
    return child.exitCode
  }
  return {
    url,
    folder,
    printed: () => printed,
    isAlive: () => child.exitCode === null && child.signalCode === null,
    /** Asks the process to end, and gives its exit code; null when it was ended by force. */
    stop,
    end: async () => {
      await stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

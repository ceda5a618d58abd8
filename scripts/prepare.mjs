// What every command needs first: a fitting Node, the packages, and where asked a browser, a database server and a build. No dependencies.
import { createHash, randomBytes } from 'node:crypto'
import { spawn, spawnSync } from 'node:child_process'
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { delimiter, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))
const cache = join(root, 'node_modules', '.cache')
const LEAST_NODE = [20, 19]

/** Runs a program and waits; its output goes to ours. Gives the exit code. */
export function run(command, args, env = {}) {
  return new Promise(done => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
    child.on('error', error => {
      console.error(`${command} can't be started: ${error.message}`)
      done(1)
    })
    child.on('exit', code => done(code ?? 1))
  })
}

/** A program of the installed packages. */
export const bin = name => join(root, 'node_modules', '.bin', name)

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major > LEAST_NODE[0] || (major === LEAST_NODE[0] && minor >= LEAST_NODE[1])) return
  console.error(`Tobbin needs Node ${LEAST_NODE.join('.')} or newer; this is ${process.versions.node}.`)
  process.exit(1)
}

/** Installs the packages when the lock, the manifest or Node differ from the last time. */
export async function install() {
  const stamp = join(root, 'node_modules', '.tobbin-installed')
  const wanted = hashOf(
    ['package.json', 'package-lock.json'].map(f => join(root, f)),
    process.version,
  )
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Installing packages …')
  if (await run('npm', ['ci', '--no-audit', '--no-fund'])) {
    console.error('The packages could not be installed; see above.')
    process.exit(1)
  }
  writeFileSync(stamp, wanted)
}

const hashOf = (files, salt = '') =>
  files
    .reduce(
      (hash, file) => hash.update(file.slice(root.length)).update(readFileSync(file)),
      createHash('sha256').update(salt),
    )
    .digest('hex')

function filesBelow(folder) {
  if (!existsSync(folder)) return []
  if (statSync(folder).isFile()) return [folder]
  return readdirSync(folder)
    .sort()
    .flatMap(name => filesBelow(join(folder, name)))
}

/** Builds the application when its sources differ from the last build. */
export async function build() {
  const sources = [
    'app',
    'core',
    'offline',
    'demo',
    'server',
    'shared',
    'public',
    'nuxt.config.ts',
    'package-lock.json',
  ].flatMap(f => filesBelow(join(root, f)))
  const stamp = join(cache, 'tobbin-built')
  const wanted = hashOf(sources, process.version)
  if (
    existsSync(join(root, '.output/server/index.mjs')) &&
    existsSync(stamp) &&
    readFileSync(stamp, 'utf8') === wanted
  )
    return
  console.log('Building …')
  if (await run(bin('nuxt'), ['build'])) process.exit(1)
  mkdirSync(cache, { recursive: true })
  writeFileSync(stamp, wanted)
}

/** Where a Chromium is; as root on Debian it is installed when there is none. Null when there is none to be had. */
export function chromium() {
  const found = [
    process.env.CHROMIUM_PATH,
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome',
  ].find(p => p && existsSync(p))
  if (found || process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return found ?? null
  console.log('Installing Chromium …')
  const options = { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  spawnSync('apt-get', ['update'], options)
  spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], options)
  return existsSync('/usr/bin/chromium') ? '/usr/bin/chromium' : null
}

/** Whether the texts of PDF files can be read, as tests do; as root on Debian what does it is installed where it is missing. */
export function pdfReader() {
  const isThere = () => spawnSync('pdftotext', ['-v']).status === 0
  if (isThere() || process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return isThere()
  console.log('Installing poppler-utils …')
  const options = { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  spawnSync('apt-get', ['update'], options)
  spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'poppler-utils'], options)
  return isThere()
}

/** Where PostgreSQL's programs are; as root on Debian they are installed when there are none. Null when there are none to be had. */
function postgresPrograms() {
  const found = findPostgres()
  if (found || process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return found
  console.log('Installing PostgreSQL …')
  const options = { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  spawnSync('apt-get', ['update'], options)
  spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'postgresql'], options)
  return findPostgres()
}

function findPostgres() {
  const versions = '/usr/lib/postgresql'
  const folders = existsSync(versions) ? readdirSync(versions).map(v => join(versions, v, 'bin')) : []
  const all = [...folders, ...(process.env.PATH ?? '').split(delimiter)]
  return all.find(folder => existsSync(join(folder, 'initdb'))) ?? null
}

/**
 * A PostgreSQL server of its own on a free port, in a folder that goes with it: its address, `pause`, `resume` and `stop`. Null when PostgreSQL is not to
 * be had. As root it runs as `postgres`, since it refuses root. Synced: what it acknowledges is on the disk, as it is where people work.
 */
export async function startPostgres({ isSynced = false } = {}) {
  const programs = postgresPrograms()
  if (!programs) return null
  const folder = mkdtempSync(join(tmpdir(), 'tobbin-postgres-'))
  const isRoot = process.getuid?.() === 0
  if (isRoot) spawnSync('chown', ['postgres', folder], { stdio: 'inherit' })
  const start = (program, args) => {
    const path = join(programs, program)
    const [command, given] = isRoot ? ['runuser', ['-u', 'postgres', '--', path, ...args]] : [path, args]
    const { status } = spawnSync(command, given, { stdio: ['ignore', 'ignore', 'inherit'], cwd: folder })
    return status === 0
  }
  const data = join(folder, 'data')
  const port = await freePort()
  const options = `-p ${port} -k ${folder} -c listen_addresses=127.0.0.1 -c fsync=${isSynced ? 'on' : 'off'}`
  const stop = () => {
    start('pg_ctl', ['-D', data, '-m', 'immediate', 'stop'])
    rmSync(folder, { recursive: true, force: true })
  }
  if (!start('initdb', ['-D', data, '-A', 'trust', '-U', 'tobbin'])) return null
  const resume = () => start('pg_ctl', ['-D', data, '-o', options, '-l', join(folder, 'log'), '-w', 'start'])
  const pause = () => start('pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop'])
  if (resume()) return { url: `postgres://tobbin@127.0.0.1:${port}/postgres`, pause, resume, stop }
  stop()
  return null
}

const freePort = () =>
  new Promise(done => {
    const server = createServer()
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => done(port))
    })
  })

/** The secret that seals the session cookie: made once, kept in the data folder. */
export function sessionPassword(folder) {
  const file = join(folder, 'session-password')
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8').trim()
}

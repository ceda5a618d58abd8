// What every command needs first: a fitting Node, the packages, and where asked a browser and a build. No dependencies.
import { createHash, randomBytes } from 'node:crypto'
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
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

/** The secret that seals the session cookie: made once, kept in the data folder. */
export function sessionPassword(folder) {
  const file = join(folder, 'session-password')
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8').trim()
}

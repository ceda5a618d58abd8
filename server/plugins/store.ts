import { bringPatternEngine } from '../../core/expressions/patternEngine'
import { checkSecret, readEnvironment } from '../environment'
import { openStore, type Store } from '../store/database'
import { useFileFolder } from '../store/fileFolder'
import { useStore } from '../store/current'
import { makeSetUpCode } from '../services/people/setUp'
import { seed } from '../services/seed'

async function open(): Promise<Store> {
  const config = useRuntimeConfig()
  checkSecret(config.session.password)
  useFileFolder(config.dataFolder)
  const assets = useStorage('assets:migrations')
  const migrations: Record<string, string> = {}
  for (const key of await assets.getKeys()) {
    const content = await assets.getItem(key)
    migrations[key.replaceAll(':', '/')] = typeof content === 'string' ? content : JSON.stringify(content)
  }
  return openStore({
    url: readEnvironment(process.env).databaseUrl,
    folder: config.dataFolder,
    migrations,
    first: db => seed(db, config.demo !== ''),
  })
}

/** Where nobody is in the workspace yet: the code by which the first person sets it up. */
async function printSetUpCode({ db }: Store) {
  const code = await makeSetUpCode(db)
  if (code === null) return
  console.log(`\n  Nobody is here yet. Open /set-up and type this code:  ${code}\n`)
}

export default defineNitroPlugin(nitro => {
  bringPatternEngine()
  const opening = open()
  // Requests that come while the store opens wait for it.
  useStore(opening)
  nitro.hooks.hook('close', async () => (await opening).close())
  opening.then(printSetUpCode).catch((error: unknown) => {
    console.error(error instanceof Error ? error.message : error)
    process.exit(1)
  })
})

import { openStore } from '../store/database'
import { useStore } from '../store/current'
import { seed } from '../services/seed'

export default defineNitroPlugin(async (nitro) => {
  const config = useRuntimeConfig()
  const assets = useStorage('assets:migrations')
  const migrations: Record<string, string> = {}
  for (const key of await assets.getKeys()) {
    const content = await assets.getItem(key)
    migrations[key.replaceAll(':', '/')] = typeof content === 'string' ? content : JSON.stringify(content)
  }
  const opening = openStore({ url: process.env.DATABASE_URL, folder: config.dataFolder, migrations, first: db => seed(db, config.demo !== '') })
  useStore(opening)
  nitro.hooks.hook('close', async () => (await opening).close())
  await opening.catch((error: unknown) => {
    console.error(error instanceof Error ? error.message : error)
    process.exit(1)
  })
})

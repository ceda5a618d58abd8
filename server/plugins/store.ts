import { bringPatternEngine } from '../../core/expressions/patternEngine'
import { checkSecret, readEnvironment } from '../environment'
import { usePostOffice } from '../services/post/office'
import { postLetters } from '../services/post/run'
import { smtpOffice } from '../services/post/smtp'
import { beginJobs } from '../jobs/begin'
import { ourJobs } from '../jobs/ours'
import { sayBackup, writeBackup } from '../services/backup/writeBackup'
import { runDeliveries } from '../services/deliveries/run'
import { lookWith, soon } from '../services/deliveries/soon'
import { describeForLog } from '../store/storeErrors'
import { answerCommands, type Command } from '../store/control'
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

/** What commands ask of the process that has the embedded database open. */
const answer =
  ({ db }: Store) =>
  async ({ path }: Command) =>
    sayBackup(path, await writeBackup(db, path))

export default defineNitroPlugin(nitro => {
  const { dataFolder, backupsKept } = useRuntimeConfig()
  bringPatternEngine()
  const opening = open()
  // Requests that come while the store opens wait for it.
  useStore(opening)
  const endJobs = beginJobs(opening, ourJobs(dataFolder, Number(backupsKept)))
  const look = async () => {
    try {
      const { db } = await opening
      await runDeliveries(db)
      await postLetters(db)
    } catch (error) {
      console.error(`What is to be done by itself waits. ${describeForLog(error)}`)
    }
  }
  lookWith(look)
  const { mail } = readEnvironment(process.env)
  usePostOffice(mail ? smtpOffice(mail.url, { ...mail, soon }) : null)
  const isEmbedded = readEnvironment(process.env).databaseUrl === undefined
  const listening = opening.then(store =>
    isEmbedded ? answerCommands(dataFolder, answer(store)) : undefined,
  )
  nitro.hooks.hook('close', async () => {
    lookWith(null)
    await (
      await listening
    )?.()
    await endJobs()
    await (await opening).close()
  })
  Promise.all([opening.then(printSetUpCode), listening]).catch((error: unknown) => {
    console.error(error instanceof Error ? error.message : error)
    process.exit(1)
  })
})

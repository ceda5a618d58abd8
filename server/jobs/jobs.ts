import PgBoss from 'pg-boss'
import { describeForLog } from '../store/storeErrors'
import type { Database, Store } from '../store/database'

/** Work that is done in the background, by one process at a time, however many serve. */
export interface Job {
  name: string
  /** When: a cron expression (POSIX crontab), in UTC. */
  cron: string
  /** Whether it is to be done soon after the start, and not only at its time. */
  isDue: () => Promise<boolean>
  run: (db: Database) => Promise<void>
}

/** Begun background work: how more of it is asked for, and how it ends. */
export interface Jobs {
  /** Has a job done as soon as somebody has time for it. */
  ask: (name: string) => Promise<void>
  stop: () => Promise<void>
}

/** The schema of the database in which the work stands that is waiting. */
export const JOBS_SCHEMA = 'jobs'

const RETRIES = 3
/** Seconds between one look and the next whether there is something to do. */
const LOOK_EVERY = 15
const GIVE_UP_AFTER = 3_600
const STOP_WITHIN = 5_000
/** Seconds after a start at which what is due is done. */
const FIRST_AFTER = 30
/** Seconds for which it is remembered when something was done: those who watch are told. */
const REMEMBER = 7 * 86_400

/** Begins the background work on a store. What is waiting stands in the store: a restart loses none of it. */
export async function startJobs(store: Store, jobs: readonly Job[]): Promise<Jobs> {
  const boss = new PgBoss({
    db: { executeSql: store.execute },
    schema: JOBS_SCHEMA,
    archiveCompletedAfterSeconds: REMEMBER,
  })
  boss.on('error', error => console.error(`Background work: ${describeForLog(error)}`))
  await boss.start()
  for (const job of jobs) await begin(boss, store.db, job)
  return {
    ask: async name => {
      await boss.send(name, {}, OPTIONS)
    },
    stop: () => boss.stop({ graceful: true, timeout: STOP_WITHIN }),
  }
}

const OPTIONS = { retryLimit: RETRIES, retryBackoff: true, expireInSeconds: GIVE_UP_AFTER }

async function begin(boss: PgBoss, db: Database, { name, cron, isDue, run }: Job) {
  await boss.createQueue(name, { name, policy: 'singleton', ...OPTIONS })
  await boss.schedule(name, cron, {}, OPTIONS)
  await boss.work(name, { pollingIntervalSeconds: LOOK_EVERY }, async () => {
    try {
      await run(db)
    } catch (error) {
      console.error(`“${name}” failed, and is tried again. ${describeForLog(error)}`)
      throw error
    }
  })
  if (await isDue()) await boss.send(name, {}, { ...OPTIONS, startAfter: FIRST_AFTER })
}

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

/** Begun background work: how it ends. */
export interface Jobs {
  stop: () => Promise<void>
}
/** Seconds after a start at which what is due is done, and between one look and the next whether there is something to do. */
interface Pace {
  first: number
  every: number
}
const PACE: Pace = { first: 30, every: 15 }

/** The schema of the database in which the work stands that is waiting. */
export const JOBS_SCHEMA = 'jobs'

const RETRIES = 3
const GIVE_UP_AFTER = 3_600
const STOP_WITHIN = 5_000
/** Seconds for which it is remembered when something was done: those who watch are told. */
const REMEMBER = 7 * 86_400

/** Begins the background work on a store. What is waiting stands in the store: a restart loses none of it. */
export async function startJobs(store: Store, jobs: readonly Job[], pace = PACE): Promise<Jobs> {
  const boss = new PgBoss({
    db: { executeSql: store.execute },
    schema: JOBS_SCHEMA,
    archiveCompletedAfterSeconds: REMEMBER,
  })
  boss.on('error', error => console.error(`Background work: ${describeForLog(error)}`))
  await boss.start()
  for (const job of jobs) await begin(boss, store.db, job, pace)
  return { stop: () => boss.stop({ graceful: true, timeout: STOP_WITHIN }) }
}

const OPTIONS = { retryLimit: RETRIES, retryBackoff: true, expireInSeconds: GIVE_UP_AFTER }

async function begin(boss: PgBoss, db: Database, { name, cron, isDue, run }: Job, pace: Pace) {
  await boss.createQueue(name, { name, policy: 'singleton', ...OPTIONS })
  await boss.schedule(name, cron, {}, OPTIONS)
  await boss.work(name, { pollingIntervalSeconds: pace.every }, async () => {
    try {
      await run(db)
    } catch (error) {
      console.error(`“${name}” failed, and is tried again. ${describeForLog(error)}`)
      throw error
    }
  })
  if (await isDue()) await boss.send(name, {}, { ...OPTIONS, startAfter: pace.first })
}

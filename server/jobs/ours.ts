import { join } from 'node:path'
import { dailyName, keepDailyBackups, listDailyBackups } from '../services/backup/dailyBackup'
import { postLetters } from '../services/post/run'
import { postDigests } from '../services/digests'
import { runDeliveries } from '../services/deliveries/run'
import { postNotices } from '../services/notices'
import { sweep } from '../services/sweep'
import type { Job } from './jobs'

/** What Tobbin does in the background. `backupsKept`: 0 for none. */
export function ourJobs(dataFolder: string, backupsKept: number): Job[] {
  const folder = join(dataFolder, 'backups')
  const tidyUp: Job = { name: 'tidy-up', cron: '7 * * * *', isDue: () => Promise.resolve(true), run: sweep }
  const postDue: Job = {
    name: 'notices',
    cron: '*/15 * * * *',
    isDue: () => Promise.resolve(true),
    run: db => postNotices(db),
  }
  const deliver: Job = {
    name: 'deliveries',
    cron: '* * * * *',
    isDue: () => Promise.resolve(true),
    run: async db => {
      await runDeliveries(db)
      await postLetters(db)
    },
  }
  const digest: Job = {
    name: 'digests',
    cron: '10 5 * * *',
    isDue: () => Promise.resolve(true),
    run: db => postDigests(db),
  }
  const backUp: Job = {
    name: 'back-up',
    cron: '20 3 * * *',
    // Whoever lets Tobbin rest at night has a backup too.
    isDue: async () => !(await listDailyBackups(folder)).includes(dailyName(new Date())),
    run: db => keepDailyBackups(db, folder, backupsKept),
  }
  const always = [tidyUp, postDue, deliver, digest]
  return backupsKept > 0 ? [...always, backUp] : always
}

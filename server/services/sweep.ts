import type { Database } from '../store/database'
import { sweepBin } from './bin'
import { sweepUnclaimed } from './files'
import { sweepKept } from './keptAnswers'
import { sweepKeys } from './people/oneTimeKeys'
import { sweepRecord } from './people/record'
import { sweepSessions } from './people/sessions'
import { sweepTallies } from './people/tallies'
import { keepRetentions } from './retention'

/** Clears what is over: sessions, keys, counts, old lines of the record, answers that nobody went on with, responses that are older than they are kept, those that were long in the bin, and files that nobody sent. */
export async function sweep(db: Database): Promise<void> {
  await sweepSessions(db)
  await sweepKeys(db)
  await sweepTallies(db)
  await sweepRecord(db)
  await sweepKept(db)
  await keepRetentions(db)
  await sweepBin(db)
  await sweepUnclaimed(db)
}

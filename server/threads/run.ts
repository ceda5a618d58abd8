import { Piscina } from 'piscina'
import { refuse } from '../http/refuse'
import { TASKS, type Inputs, type Results, type TaskName } from './tasks'

/** Milliseconds after which a task is given up, its thread with it. */
const WITHIN: Threads['within'] = {
  proveRelease: 180_000,
  editForm: 30_000,
  placeProposal: 30_000,
  weighResponses: 30_000,
  readCells: 30_000,
  weighRows: 30_000,
  makePdf: 60_000,
  readTemplate: 30_000,
  fillTemplate: 30_000,
  setPdf: 30_000,
  readContent: 30_000,
  sealDocument: 30_000,
  renameTags: 30_000,
  readDefinition: 30_000,
  readBody: 30_000,
}
/** Tasks that wait for a thread at most; what comes on top is refused. */
const MOST_WAITING = 50
/** Megabytes that a task may use. */
const MEMORY = 2_048

/** A form is proved in one thread and everything else is done in another: a long proof keeps no edit waiting. */
interface Threads {
  proving: Piscina
  reading: Piscina
  within: Readonly<Record<TaskName, number>>
}
let threads: Threads | null = null

/** Has tasks done in worker threads of this file, within so many milliseconds each; before, and without one, they are done where they are asked for. */
export function useThreads(file: string, within: Threads['within'] = WITHIN): void {
  const pool = (least: number) =>
    new Piscina({
      filename: file,
      minThreads: least,
      maxThreads: 1,
      maxQueue: MOST_WAITING,
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY },
    })
  threads = { proving: pool(0), reading: pool(1), within }
}

/** Ends the threads. What they were doing is given up. */
export async function endThreads(): Promise<void> {
  const ended = threads
  threads = null
  await Promise.all([ended?.proving.destroy(), ended?.reading.destroy()])
}

/**
 * Does a task beside the thread that answers requests.
 * @throws Refused (503) when too many wait, or when it takes too long or too much memory
 */
export async function runTask<N extends TaskName>(name: N, input: Inputs[N]): Promise<Results[N]> {
  if (!threads) return TASKS[name](input)
  const pool = name === 'proveRelease' ? threads.proving : threads.reading
  if (pool.queueSize >= MOST_WAITING)
    refuse(503, 'busy', 'The server has too much to do just now. Try again in a minute.')
  try {
    return await pool.run({ name, input }, { signal: AbortSignal.timeout(threads.within[name]) })
  } catch (error) {
    if (isOverLimit(error))
      refuse(503, 'too-long', 'This took more time or memory than the server gives it, and was stopped.')
    throw error
  }
}

const isOverLimit = (error: unknown) =>
  error instanceof Error &&
  (error.name === 'AbortError' || ('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY'))

import { createHash } from 'node:crypto'
import { chmod, rm } from 'node:fs/promises'
import { createConnection, createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { createInterface } from 'node:readline'
import { z } from 'zod'

// The embedded database is open in one process alone. Commands ask that process: by a socket in its folder, which is its owner's alone.

/** What a running server is asked for. */
const Command = z.strictObject({ do: z.literal('backup'), path: z.string().min(1) })
export type Command = z.infer<typeof Command>
const Answer = z.strictObject({ done: z.boolean(), text: z.string() })
export type Answer = z.infer<typeof Answer>

/** Longest path that a socket may have (sun_path of POSIX, less where it is shortest). */
const LONGEST = 100

/** Where the socket of a data folder is; null where the path would be too long for one. */
function socketOf(folder: string): string | null {
  const path = resolve(folder)
  if (process.platform === 'win32')
    return `\\\\.\\pipe\\tobbin-${createHash('sha256').update(path).digest('hex').slice(0, 24)}`
  const socket = join(path, 'control.sock')
  return socket.length <= LONGEST ? socket : null
}

/** Answers commands about a data folder. @returns how that ends */
export async function answerCommands(
  folder: string,
  act: (command: Command) => Promise<string>,
): Promise<() => Promise<void>> {
  const path = socketOf(folder)
  if (!path) {
    console.error(
      `The path of the data folder is longer than ${LONGEST} characters: “tobbin backup” can’t reach this server.`,
    )
    return () => Promise.resolve()
  }
  await rm(path, { force: true })
  const server = createServer(socket => {
    const lines = createInterface({ input: socket })
    socket.on('error', () => lines.close())
    lines.once('line', line => {
      void answer(line, act).then(said => socket.end(`${JSON.stringify(said)}\n`))
    })
  })
  await new Promise<void>((done, failed) => {
    server.once('error', failed)
    server.listen(path, done)
  })
  if (process.platform !== 'win32') await chmod(path, 0o600)
  return () => new Promise(done => server.close(() => done()))
}

async function answer(line: string, act: (command: Command) => Promise<string>): Promise<Answer> {
  try {
    return { done: true, text: await act(Command.parse(JSON.parse(line))) }
  } catch (error) {
    return { done: false, text: error instanceof Error ? error.message : 'It failed.' }
  }
}

/** Asks the server that has a data folder open; null when there is none. */
export function askServer(folder: string, command: Command): Promise<Answer | null> {
  const path = socketOf(folder)
  if (!path) return Promise.resolve(null)
  return new Promise((done, failed) => {
    const socket = createConnection(path)
    const lines = createInterface({ input: socket })
    lines.once('line', line => done(Answer.parse(JSON.parse(line))))
    socket.once('connect', () => socket.write(`${JSON.stringify(command)}\n`))
    socket.once('close', () => failed(new Error('The server ended before it had answered.')))
    // Nobody listens there: no server is running, or it ended without clearing up.
    socket.once('error', () => done(null))
  })
}

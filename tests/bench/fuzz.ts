import { startServer } from '../browser/ownServer'
import { fuzz } from '../support/fuzz'

// `npm run fuzz -- COUNT SEED`: so many mutated requests to the built server. Fails when it fails at one of them, or stops.
const [count = '100000', seed = String(Date.now() % 1_000_000)] = process.argv.slice(2)
/** Requests to one server: by then people have lost their sessions and forms, so that less is left to be reached. */
const A_ROUND = 1_200
/** Rounds after which it is said how far it has come. */
const SAY_EVERY = 10

const statuses = new Map<string, number>()
let failed = 0
for (let done = 0; done < Number(count); done += A_ROUND) {
  if (done % (A_ROUND * SAY_EVERY) === 0) console.log(`${done} of ${count}; ${failed} failed so far`)
  const round = Number(seed) + done
  const server = await startServer({ demo: true })
  const found = await fuzz(server.url, Math.min(A_ROUND, Number(count) - done), round)
  const isAlive = server.isAlive()
  const printed = server.printed()
  await server.end()
  for (const [status, n] of Object.entries(found.statuses))
    statuses.set(status, (statuses.get(status) ?? 0) + n)
  failed += found.faults.length + (isAlive ? 0 : 1)
  for (const fault of found.faults.slice(0, 20)) console.log(`seed ${round}: ${fault}`)
  if (!isAlive || found.faults.length > 0)
    console.log(isAlive ? '' : 'The server has ended.', printed.slice(-6_000))
}
console.log(`${count} requests from seed ${seed}; ${failed} failed; by status:`, Object.fromEntries(statuses))
process.exitCode = failed === 0 ? 0 : 1

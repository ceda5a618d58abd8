// npm run bench: prints the times that the product promises; `npm run bench -- lists pages` only those.
import { bin, build, checkNode, chromium, install, run, startPostgres } from './prepare.mjs'

checkNode()
await install()
const parts = process.argv.slice(2)
const wants = part => parts.length === 0 || parts.includes(part)
// The packages that the pages of the benchmark come from are named in what this writes.
if (await run(bin('nuxt'), ['prepare'])) process.exit(1)
if (wants('server')) await build()
const browser = chromium()
const postgres = wants('server') ? await startPostgres({ isSynced: true }) : null
process.exitCode = await run(bin('tsx'), ['tests/bench/bench.ts', ...parts], {
  ...(browser ? { CHROMIUM_PATH: browser } : {}),
  ...(postgres ? { TEST_DATABASE_URL: postgres.url } : {}),
})
postgres?.stop()

// npm run bench: prints the times that the product promises; `npm run bench -- lists pages` only those.
import { bin, checkNode, chromium, install, run } from './prepare.mjs'

checkNode()
await install()
// The packages that the pages of the benchmark come from are named in what this writes.
if (await run(bin('nuxt'), ['prepare'])) process.exit(1)
const browser = chromium()
process.exitCode = await run(
  bin('tsx'),
  ['tests/bench/bench.ts', ...process.argv.slice(2)],
  browser ? { CHROMIUM_PATH: browser } : {},
)

// npm run bench: prints the times that the product promises.
import { bin, checkNode, chromium, install, run } from './prepare.mjs'

checkNode()
await install()
const browser = chromium()
process.exitCode = await run(bin('tsx'), ['tests/bench/bench.ts'], browser ? { CHROMIUM_PATH: browser } : {})

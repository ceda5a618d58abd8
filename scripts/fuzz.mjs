// npm run fuzz: mutated requests to the built server, 100,000 unless said otherwise; `npm run fuzz -- COUNT SEED`.
import { bin, build, checkNode, install, run } from './prepare.mjs'

checkNode()
await install()
await build()
process.exitCode = await run(bin('tsx'), ['tests/bench/fuzz.ts', ...process.argv.slice(2)])

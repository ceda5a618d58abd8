// npm run prove:mutations [COUNT]: single slips in the clean demo forms, and how many of them the prover speaks of.
import { bin, checkNode, install, run } from './prepare.mjs'

checkNode()
await install()
process.exitCode = await run(bin('tsx'), ['tests/bench/mutations.ts', ...process.argv.slice(2)])

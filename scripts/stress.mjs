// npm run prove:stress [FORMS]: the prover against brute force and an independent SMT solver on many random forms (20,000 unless said otherwise).
import { bin, checkNode, install, run } from './prepare.mjs'

checkNode()
await install()
const forms = process.argv[2] ?? '20000'
process.exitCode = await run(bin('vitest'), ['run', 'core/prove', 'tests/oracle', '--testTimeout=3600000'], {
  PROVE_FORMS: forms,
})

// npm test: installs what is missing, then unit tests, type check, lint and browser tests; ends with one line of counts.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { bin, build, checkNode, chromium, install, root, run } from './prepare.mjs'

checkNode()
await install()
const results = join(root, 'test-results')
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })
const total = { passed: 0, failed: 0 }
const add = (passed, failed) => {
  total.passed += passed
  total.failed += failed
}

/** Reads what a runner wrote; a runner that wrote nothing, or failed without a failed test, counts as one failure. */
function count(file, code, read) {
  const counted = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 0 }
  add(counted.passed, code !== 0 && counted.failed === 0 ? 1 : counted.failed)
}

const unit = join(results, 'unit.json')
count(
  unit,
  await run(bin('vitest'), ['run', '--reporter=default', '--reporter=json', `--outputFile=${unit}`]),
  r => ({ passed: r.numPassedTests, failed: r.numFailedTests }),
)

for (const [name, command, args] of [
  ['prepare', 'nuxt', ['prepare']],
  ['type check', 'vue-tsc', ['-b']],
  ['lint', 'eslint', ['.']],
]) {
  const failed = (await run(bin(command), args)) !== 0
  console.log(`${name}: ${failed ? 'FAILED' : 'ok'}`)
  add(failed ? 0 : 1, failed ? 1 : 0)
}

const browser = chromium()
if (browser) {
  await build()
  const file = join(results, 'browser.json')
  const code = await run(bin('playwright'), ['test'], { CHROMIUM_PATH: browser })
  count(file, code, r => ({ passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected }))
} else {
  console.error(
    'No Chromium was found, and none could be installed: set CHROMIUM_PATH. The browser tests did not run.',
  )
  add(0, 1)
}
console.log(`\n${total.passed} passed, ${total.failed} failed`)
process.exitCode = total.failed > 0 ? 1 : 0

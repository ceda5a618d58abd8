// npm test: installs what is missing, then unit tests, the store's on PostgreSQL too, type check, lint, format and browser tests; ends with one line of counts.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { bin, build, checkNode, chromium, install, pdfReader, root, run, startPostgres } from './prepare.mjs'

checkNode()
await install()
const results = join(root, 'test-results')
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })
const total = { passed: 0, failed: 0 }
/** What failed, told once more at the end, where nobody has to look for it. */
const failures = []
const add = (passed, failed) => {
  total.passed += passed
  total.failed += failed
}

/** Reads what a runner wrote; a runner that wrote nothing, or failed without a failed test, counts as one failure. */
function count(file, code, read) {
  const counted = existsSync(file)
    ? read(JSON.parse(readFileSync(file, 'utf8')))
    : { passed: 0, failed: 0, said: [] }
  const unsaid = code !== 0 && counted.failed === 0
  add(counted.passed, unsaid ? 1 : counted.failed)
  failures.push(...counted.said)
  if (unsaid) failures.push(`the runner ended with ${code}, without a failed test (${file})`)
}

/** The test's full name, and what it said: of a property, its seed and the smallest case. */
const saidOf = test => `${test.fullName}\n${(test.failureMessages ?? []).join('\n').slice(0, 3_000)}`
const unitCounts = r => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests,
  said: r.testResults.flatMap(file => file.assertionResults.filter(t => t.status === 'failed').map(saidOf)),
})

/** The names of the browser tests that failed, at whatever depth of the suites. */
function failedSpecs(suite) {
  const here = (suite.specs ?? []).filter(spec => !spec.ok).map(spec => `${spec.file}: ${spec.title}`)
  return [...here, ...(suite.suites ?? []).flatMap(failedSpecs)]
}
const browserCounts = r => ({
  passed: r.stats.expected,
  failed: r.stats.unexpected + r.stats.flaky,
  said: failedSpecs(r),
})

async function runUnitTests(name, env = {}, only = []) {
  const file = join(results, `${name}.json`)
  const args = ['run', '--reporter=default', '--reporter=json', `--outputFile=${file}`, ...only]
  count(file, await run(bin('vitest'), args, env), unitCounts)
}
if (!pdfReader()) {
  console.error('pdftotext was not found, and could not be installed. The tests of PDF files will fail.')
}
await runUnitTests('unit')

const postgres = await startPostgres()
if (postgres) {
  console.log('\nThe store and the services on PostgreSQL:')
  await runUnitTests('postgres', { TEST_DATABASE_URL: postgres.url }, ['server'])
  postgres.stop()
} else {
  console.error('No PostgreSQL was found, and none could be installed. Its tests did not run.')
  add(0, 1)
}

for (const [name, command, args] of [
  ['prepare', 'nuxt', ['prepare']],
  ['type check', 'vue-tsc', ['-b']],
  ['lint', 'eslint', ['.']],
  ['format', 'prettier', ['--check', '--log-level', 'warn', '.']],
]) {
  const failed = (await run(bin(command), args)) !== 0
  console.log(`${name}: ${failed ? 'FAILED' : 'ok'}`)
  add(failed ? 0 : 1, failed ? 1 : 0)
  if (failed) failures.push(name)
}

const browser = chromium()
if (browser) {
  await build()
  const file = join(results, 'browser.json')
  const code = await run(bin('playwright'), ['test'], { CHROMIUM_PATH: browser })
  count(file, code, browserCounts)
} else {
  console.error(
    'No Chromium was found, and none could be installed: set CHROMIUM_PATH. The browser tests did not run.',
  )
  add(0, 1)
}
for (const failure of failures) console.log(`\nFAILED: ${failure}`)
console.log(`\n${total.passed} passed, ${total.failed} failed`)
process.exitCode = total.failed > 0 ? 1 : 0

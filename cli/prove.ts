import { parseArgs } from 'node:util'
import type { Form } from '../core/form/definition'
import type { ShapeProblem } from '../core/form/read'
import { planOf } from '../core/fill/plan'
import { foldedWords, type Finding, type Severity, type Verdict } from '../core/prove/finding'
import { formOutput } from './output'
import { readFormFile } from './readFormFile'
import { prove } from '../core/prove/prove'
import { runWalk, type WalkOutcome } from '../core/prove/walks'

const SEVERITIES: readonly Severity[] = ['fault', 'risk', 'advice']
interface Options {
  files: string[]
  format: 'text' | 'json' | 'junit'
  /** The day on which is proved. */
  today: string
  failOn: Severity
}
/** What came of one file: read and proved, or why it could not be read. */
interface Proved {
  file: string
  form: Form | null
  verdict: Verdict | null
  walks: WalkOutcome[]
  problems: ShapeProblem[]
}

/** `tobbin prove`: prints the findings of some files and gives the exit code. */
export function proveCommand(args: readonly string[], usage: string): number {
  const options = optionsOf(args)
  if (typeof options === 'string') {
    process.stderr.write(options === '' ? usage : `${options}\n\n${usage}`)
    return 2
  }
  const proved = options.files.map(file => proveFile(file, options.today))
  for (const { file, problems } of proved)
    for (const p of problems) process.stderr.write(`${file}: ${p.path || 'the whole'}: ${p.sentence}\n`)
  process.stdout.write({ text: asText, json: asJson, junit: asJunit }[options.format](proved, options))
  if (proved.some(p => p.verdict === null)) return 2
  return proved.some(p => failing(p, options.failOn).length > 0 || p.walks.some(w => w.misses.length > 0))
    ? 1
    : 0
}

/** Reads the arguments; a sentence where they don't fit, empty where nothing was asked for. */
function optionsOf(args: readonly string[]): Options | string {
  const read = readArguments(args)
  if (typeof read === 'string') return read
  const { values, positionals: files } = read
  const failOn = SEVERITIES.find(s => s === values['fail-on'])
  if (!failOn) return `--fail-on takes one of ${SEVERITIES.join(', ')}.`
  if (files.length === 0) return ''
  return { files, format: formatOf(values), failOn, today: new Date().toISOString().slice(0, 10) }
}

/** The arguments by name; what does not fit as a sentence. */
function readArguments(args: readonly string[]) {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        json: { type: 'boolean' },
        junit: { type: 'boolean' },
        'fail-on': { type: 'string', default: 'fault' },
      },
    })
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
}

function formatOf({ json, junit }: { json?: boolean; junit?: boolean }): Options['format'] {
  if (junit) return 'junit'
  return json ? 'json' : 'text'
}

function proveFile(file: string, today: string): Proved {
  const failed = (problems: ShapeProblem[]): Proved => ({
    file,
    form: null,
    verdict: null,
    walks: [],
    problems,
  })
  const { form, problems } = readFormFile(file)
  if (!form) return failed(problems)
  const plan = planOf(form)
  return {
    file,
    form,
    verdict: prove(form, today),
    walks: (form.walks ?? []).map(walk => runWalk(plan, walk, today)),
    problems: [],
  }
}

function findingLine(finding: Finding, file: string): string {
  const folded = foldedWords(finding)
  const more = folded === '' ? '' : ` (${folded})`
  return `${finding.severity.padEnd(6)}  ${finding.at ?? file}: ${finding.sentence}${more} [${finding.code}]`
}

/** The findings that make a file fail: as bad as asked for, or worse. */
const failing = ({ verdict }: Proved, failOn: Severity): Finding[] =>
  (verdict?.findings ?? []).filter(f => SEVERITIES.indexOf(f.severity) <= SEVERITIES.indexOf(failOn))

function asText(proved: readonly Proved[]): string {
  return proved
    .flatMap(({ file, verdict, walks }) => {
      if (!verdict) return []
      const { findings, tally } = verdict
      const missed = walks.filter(w => w.misses.length > 0)
      return [
        ...(proved.length > 1 ? [`${file}:`] : []),
        ...findings.map(f => findingLine(f, file)),
        ...missed.flatMap(w => w.misses.map(m => `walk    ${w.walk.title}: ${m}`)),
        `${findings.length} findings; ${tally.rules} rules, ${tally.byExample + tally.byProof} goals decided, ${tally.undecided} undecided${walks.length > 0 ? `; ${walks.length - missed.length} of ${walks.length} walks as expected` : ''}.`,
      ]
    })
    .map(line => `${line}\n`)
    .join('')
}

/** The documented shape (docs/prove.schema.json); of several files, a list. */
function asJson(proved: readonly Proved[], { today }: Options): string {
  const read = proved.flatMap(({ file, form, verdict, walks }) =>
    form && verdict ? [{ file, ...formOutput(form, verdict, walks, today) }] : [],
  )
  const [first] = read
  const { file: _, ...only } = first ?? { file: '' }
  return `${JSON.stringify(proved.length === 1 && first ? only : { files: read }, null, 2)}\n`
}

const CONTROL = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD]/g
const xml = (text: string) =>
  text
    .replaceAll(CONTROL, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')

/** JUnit's XML, as build servers read it: a suite for each file, a case for each finding and walk. */
function asJunit(proved: readonly Proved[], { failOn }: Options): string {
  const suites = proved.map(p => {
    const bad = new Set(failing(p, failOn))
    const cases = [
      ...(p.verdict?.findings ?? []).map(
        f =>
          `    <testcase classname="${xml(f.at ?? 'form')}" name="${xml(`${f.code}: ${f.sentence}`)}">${bad.has(f) ? `<failure type="${f.severity}" message="${xml(f.sentence)}">${xml(f.witness ? `Witness: ${JSON.stringify(f.witness)}` : '')}</failure>` : ''}</testcase>`,
      ),
      ...p.walks.map(
        w =>
          `    <testcase classname="walks" name="${xml(w.walk.title)}">${w.misses.length > 0 ? `<failure type="walk" message="${xml(w.misses[0] ?? '')}">${xml(w.misses.join('\n'))}</failure>` : ''}</testcase>`,
      ),
      ...p.problems.map(
        problem =>
          `    <testcase classname="file" name="${xml(problem.path || 'the whole')}"><error message="${xml(problem.sentence)}"/></testcase>`,
      ),
    ]
    const shown =
      cases.length > 0 ? cases : ['    <testcase classname="form" name="every rule holds together"/>']
    const failures = bad.size + p.walks.filter(w => w.misses.length > 0).length
    return `  <testsuite name="${xml(p.file)}" tests="${shown.length}" failures="${failures}" errors="${p.problems.length}">\n${shown.join('\n')}\n  </testsuite>`
  })
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites>\n${suites.join('\n')}\n</testsuites>\n`
}

import { readFileSync } from 'node:fs'
import { readFormText } from '../core/form/read'
import type { Form } from '../core/form/definition'
import type { Finding } from '../core/prove/finding'
import { prove } from '../core/prove/prove'

/** `tobbin prove`: prints the findings of one file and gives the exit code. */
export function proveCommand(args: readonly string[], usage: string): number {
  const files = args.filter(a => !a.startsWith('-'))
  const unknown = args.filter(a => a.startsWith('-') && a !== '--json')
  const [file] = files
  if (!file || files.length > 1 || unknown.length > 0) {
    process.stderr.write(unknown.length > 0 ? `There is no option ${unknown.join(', ')}.\n\n${usage}` : usage)
    return 2
  }
  const form = readFile(file)
  if (!form) return 2
  const { findings, tally } = prove(form, new Date().toISOString().slice(0, 10))
  if (args.includes('--json')) process.stdout.write(`${JSON.stringify({ findings: findings.map(forPrograms) }, null, 2)}\n`)
  else {
    for (const f of findings) process.stdout.write(`${f.severity.padEnd(6)}  ${f.at ?? file}: ${f.sentence} [${f.code}]\n`)
    process.stdout.write(`${findings.length} findings; ${tally.rules} rules, ${tally.byExample + tally.byProof} goals decided, ${tally.undecided} undecided.\n`)
  }
  return findings.some(f => f.severity === 'fault') ? 1 : 0
}

/** The documented shape: places in a conflict are the codes of what stands there. */
const forPrograms = ({ code, severity, at, sentence, conflict, witness }: Finding) =>
  ({ code, severity, at, sentence, conflict: [...new Set(conflict.map(p => p.code))], witness })

function readFile(file: string): Form | null {
  let text: string
  try {
    text = readFileSync(file, 'utf8')
  }
  catch (error) {
    process.stderr.write(`${file} can't be read: ${error instanceof Error ? error.message : String(error)}\n`)
    return null
  }
  const { form, problems } = readFormText(text)
  for (const p of problems ?? []) process.stderr.write(`${file}: ${p.path || 'the whole'}: ${p.sentence}\n`)
  return form
}

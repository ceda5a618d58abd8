import { proveCommand } from './prove'

const USAGE = `Usage: tobbin prove FILE.form.json [--json]

  prove   decides every rule of a form for all possible answers and prints the findings
  --json  prints { "findings": [ … ] } in place of text

Exit code: 0 no fault, 1 faults, 2 the file can't be read or is no form definition.
`

const [command, ...rest] = process.argv.slice(2)
if (command === 'prove') process.exitCode = proveCommand(rest, USAGE)
else {
  process.stderr.write(USAGE)
  process.exitCode = command === undefined || command === '--help' ? 0 : 2
}

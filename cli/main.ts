import { proveCommand } from './prove'

const USAGE = `Usage: tobbin prove FILE.form.json … [--json | --junit] [--fail-on fault|risk|advice]

  prove      decides every rule of the forms for all possible answers, walks their walks, and prints what was found
  --json     prints { "findings": [ … ] } in place of text; of several files { "files": [ … ] }
  --junit    prints JUnit's XML, as build servers read it
  --fail-on  from which weight on a finding makes the command fail (fault, unless said otherwise)

Exit code: 0 nothing that fails, 1 findings or walks that do, 2 a file can't be read or is no form definition.
`

const [command, ...rest] = process.argv.slice(2)
if (command === 'prove') process.exitCode = proveCommand(rest, USAGE)
else {
  process.stderr.write(USAGE)
  process.exitCode = command === undefined || command === '--help' ? 0 : 2
}

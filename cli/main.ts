import { proveCommand } from './prove'
import { userCommand } from './user'

const USAGE = `Usage: tobbin prove FILE.form.json … [--json | --junit] [--fail-on fault|risk|advice]
       tobbin user add EMAIL NAME [--role ROLE]

  prove      decides every rule of the forms for all possible answers, walks their walks, and prints what was found
  user add   invites somebody, also the first: prints the path at which the password is chosen (stop the server before, on the
             embedded database)
  --role     admin (unless said otherwise), maker or member
  --json     prints { "findings": [ … ] } in place of text; of several files { "files": [ … ] }
  --junit    prints JUnit's XML, as build servers read it
  --fail-on  from which weight on a finding makes the command fail (fault, unless said otherwise)

Exit code of prove: 0 nothing that fails, 1 findings or walks that do, 2 a file can't be read or is no form definition.
`

const [command, ...rest] = process.argv.slice(2)
if (command === 'prove') process.exitCode = proveCommand(rest, USAGE)
else if (command === 'user')
  process.exitCode = await userCommand(rest, USAGE, text => void process.stdout.write(text))
else {
  process.stderr.write(USAGE)
  process.exitCode = command === undefined || command === '--help' ? 0 : 2
}

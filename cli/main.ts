import { backupCommand, restoreCommand } from './backup'
import { diffCommand } from './diff'
import { proveCommand } from './prove'
import { userCommand } from './user'

const USAGE = `Usage: tobbin prove FILE.form.json … [--json | --junit] [--fail-on fault|risk|advice]
       tobbin diff OLD.form.json NEW.form.json [--json]
       tobbin user add EMAIL NAME [--role ROLE]
       tobbin backup FILE
       tobbin restore FILE

  prove      decides every rule of the forms for all possible answers, walks their walks, and prints what was found
  diff       prints what the new definition adds, deletes, moves and changes against the old one, and decides what comes of it for whom
  user add   invites somebody, also the first: prints the path at which the password is chosen (stop the server before, on the
             embedded database)
  backup     writes everything that the store keeps, and all files, into one file; also while the server runs
  restore    brings such a file back into an empty data folder or database
  --role     admin (unless said otherwise), maker or member
  --json     prints { "findings": [ … ] } in place of text; of several files { "files": [ … ] }; of diff { "changes": [ … ], "effects": [ … ] }
  --junit    prints JUnit's XML, as build servers read it
  --fail-on  from which weight on a finding makes the command fail (fault, unless said otherwise)

Exit code of diff: 0 both say the same, 1 they don't, 2 a file can't be read or is no form definition.
Exit code of prove: 0 nothing that fails, 1 findings or walks that do, 2 a file can't be read or is no form definition.
`

const [command, ...rest] = process.argv.slice(2)
const write = (text: string) => void process.stdout.write(text)
const COMMANDS: Readonly<Record<string, () => number | Promise<number>>> = {
  prove: () => proveCommand(rest, USAGE),
  diff: () => diffCommand(rest, USAGE),
  user: () => userCommand(rest, USAGE, write),
  backup: () => backupCommand(rest, USAGE, write),
  restore: () => restoreCommand(rest, USAGE, write),
}
const run = command === undefined ? undefined : COMMANDS[command]
if (run) process.exitCode = await run()
else {
  process.stderr.write(USAGE)
  process.exitCode = command === undefined || command === '--help' ? 0 : 2
}

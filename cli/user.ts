import { parseArgs } from 'node:util'
import { Refused } from '../server/http/refuse'
import { readEnvironment } from '../server/environment'
import { openStore } from '../server/store/database'
import { readMigrations } from '../server/store/migrationFiles'
import { invitePerson } from '../server/services/people/people'
import { keepRecord } from '../server/services/people/record'
import { Invitation } from '../shared/api/people'

/**
 * `tobbin user add EMAIL NAME [--role ROLE]`: invites somebody into the workspace, also the first, without a server that runs. Prints the path at
 * which the password is chosen.
 * @returns the exit code: 0 done, 1 refused, 2 called wrongly
 */
export async function userCommand(
  args: string[],
  usage: string,
  write: (text: string) => void,
  variables: Readonly<Record<string, string | undefined>> = process.env,
): Promise<number> {
  const invitation = readInvitation(args)
  if (!invitation) {
    write(usage)
    return 2
  }
  const store = await openStore({
    url: readEnvironment(variables).databaseUrl,
    folder: variables.NUXT_DATA_FOLDER ?? 'data',
    migrations: await readMigrations(),
    first: () => Promise.resolve(),
  })
  try {
    const { link } = await invitePerson(store.db, invitation, 'The command line')
    const by = { id: null, name: 'the command line', source: 'this machine' }
    await keepRecord(store.db, by, 'invited', {
      about: invitation.email,
      details: { role: invitation.role },
    })
    write(`${invitation.name} is invited. The password is chosen within seven days at  ${link}\n`)
    return 0
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    write(`${error.message}\n`)
    return 1
  } finally {
    await store.close()
  }
}

/** The invitation that the arguments speak of; null when they speak of none. */
function readInvitation(args: string[]) {
  try {
    const { positionals, values } = parseArgs({
      args,
      allowPositionals: true,
      options: { role: { type: 'string', default: 'admin' } },
    })
    const [act, email, ...names] = positionals
    const read = Invitation.safeParse({ email, name: names.join(' '), role: values.role })
    return act === 'add' && read.success ? read.data : null
  } catch {
    return null // an option that there is not
  }
}

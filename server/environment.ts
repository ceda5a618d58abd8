import { z } from 'zod'

const Environment = z.object({
  DATABASE_URL: z
    .string()
    .trim()
    .refine(url => url === '' || /^postgres(?:ql)?:\/\//.test(url), 'begins with postgres://')
    .optional(),
  NUXT_DATA_FOLDER: z.string().trim().min(1, 'is the path of a folder').optional(),
})

/** What the server is told by its surroundings. */
export interface Surroundings {
  /** The address of the PostgreSQL server; undefined: the embedded database. */
  databaseUrl: string | undefined
}

/** Reads the environment variables of the server. @throws Error that names the variable and says what it is to be, never what it is */
export function readEnvironment(variables: Readonly<Record<string, string | undefined>>): Surroundings {
  const read = Environment.safeParse(variables)
  if (read.success) return { databaseUrl: read.data.DATABASE_URL || undefined }
  const wrong = read.error.issues.map(issue => `${issue.path.join('.')} ${issue.message}`)
  throw new Error(`The environment is not as it should be: ${wrong.join('; ')}.`)
}

/** Fewest characters of the secret that seals sessions and second factors. */
const LEAST_SECRET = 32

/** Looks at the server's session secret. @throws Error that says what it is to be, never what it is */
export function checkSecret(secret: string): void {
  if (secret.length >= LEAST_SECRET) return
  const state = secret === '' ? 'is empty' : 'is too short'
  throw new Error(
    `NUXT_SESSION_PASSWORD ${state}: it seals the sign-ins, and has at least ${LEAST_SECRET} characters that nobody can guess.`,
  )
}

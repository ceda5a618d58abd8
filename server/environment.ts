import { z } from 'zod'

const Environment = z.object({
  DATABASE_URL: z
    .string()
    .trim()
    .refine(url => url === '' || /^postgres(?:ql)?:\/\//.test(url), 'begins with postgres://')
    .optional(),
  SMTP_URL: z
    .string()
    .trim()
    .refine(url => url === '' || /^smtps?:\/\//.test(url), 'begins with smtp:// or smtps://')
    .optional(),
  MAIL_FROM: z.string().trim().optional(),
  SITE_ADDRESS: z
    .string()
    .trim()
    .refine(url => url === '' || /^https?:\/\/[^/\s]+\/?$/.test(url), 'is like https://forms.wherry.example')
    .optional(),
  NUXT_DATA_FOLDER: z.string().trim().min(1, 'is the path of a folder').optional(),
})

/** What the server is told by its surroundings. */
export interface Surroundings {
  /** The address of the PostgreSQL server; undefined: the embedded database. */
  databaseUrl: string | undefined
  /** The mail server with who posts and where links lead; undefined: the post is simulated. */
  mail: { url: string; from: string; site: string } | undefined
}

/** Reads the environment variables of the server. @throws Error that names the variable and says what it is to be, never what it is */
export function readEnvironment(variables: Readonly<Record<string, string | undefined>>): Surroundings {
  const read = Environment.safeParse(variables)
  if (read.success) return { databaseUrl: read.data.DATABASE_URL || undefined, mail: mailOf(read.data) }
  const wrong = read.error.issues.map(issue => `${issue.path.join('.')} ${issue.message}`)
  throw new Error(`The environment is not as it should be: ${wrong.join('; ')}.`)
}

/** A mail server needs to know who posts, and where the links of letters lead. */
function mailOf({ SMTP_URL: url, MAIL_FROM: from, SITE_ADDRESS: site }: z.output<typeof Environment>) {
  if (!url) return undefined
  if (from && site) return { url, from, site }
  const missing = from ? 'SITE_ADDRESS' : 'MAIL_FROM'
  throw new Error(`The environment is not as it should be: SMTP_URL needs ${missing}, too.`)
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

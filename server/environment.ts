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

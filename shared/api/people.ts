import { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import { Letter } from './letters'

/** What the workspace says of itself in forms: its name, and its address in lines. */
export const Workspace = z.strictObject({
  name: z.string().trim().max(200),
  address: z.string().trim().max(1_000),
})
export type Workspace = z.infer<typeof Workspace>

/** What somebody is in the workspace: a member sees what is shared with them, a maker makes forms and shared lists, an admin keeps people, teams and the record as well. */
export const ROLES = ['member', 'maker', 'admin'] as const
export const Role = z.enum(ROLES)
export type Role = z.infer<typeof Role>

/** Fewest characters of a password that somebody chooses. */
export const LEAST_PASSWORD = 10
export const NewPassword = z
  .string()
  .min(LEAST_PASSWORD, `a password has at least ${LEAST_PASSWORD} characters`)
  .max(200)
export const Email = z
  .string()
  .trim()
  .toLowerCase()
  .max(200)
  .regex(/^[^\s@<>"]+@[^\s@<>"]+\.[^\s@<>"]+$/, 'an e-mail address is written ines@wherry.example')
export const PersonName = z.string().trim().min(1, 'a person has a name').max(LIMITS.label)

/** Sets an empty workspace up: the code that the server printed, and its first person. */
export const SetUp = z.strictObject({
  code: z.string().max(40),
  name: PersonName,
  email: Email,
  password: NewPassword,
})
/** Whether the workspace waits to be set up. */
export const SetUpState = z.object({ isOpen: z.boolean() })

/** Somebody as admins see them. */
export const Person = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  role: Role,
  state: z.enum(['invited', 'active', 'suspended']),
  hasSecondFactor: z.boolean(),
  seenAt: z.string().nullable(),
  /** Forms that nobody else owns: they need another owner before this person goes. */
  ownsAlone: z.int(),
})
export type Person = z.infer<typeof Person>

export const Invitation = z.strictObject({ name: PersonName, email: Email, role: Role })
/** A one-time link that was posted, for whoever has to hand it over by hand. */
export const PostedLink = z.object({ link: z.string() })
export const ChangePerson = z.strictObject({
  name: PersonName.optional(),
  role: Role.optional(),
  isSuspended: z.boolean().optional(),
  /** Takes the second factor away, for somebody who lost the device. */
  withoutSecondFactor: z.literal(true).optional(),
})
export const HandOver = z.strictObject({ to: z.uuid() })

/** A team as everybody sees it who may share. */
export const Team = z.object({ id: z.string(), name: z.string(), members: z.array(z.string()) })
export type Team = z.infer<typeof Team>
export const SaveTeam = z.strictObject({
  name: z.string().trim().min(1, 'a team has a name').max(LIMITS.label),
  members: z.array(z.uuid()).max(1_000),
})

/** With whom something can be shared: those who are not suspended, and the teams. */
export const Directory = z.object({
  people: z.array(z.object({ id: z.string(), name: z.string(), email: z.string() })),
  teams: z.array(Team),
})
export type Directory = z.infer<typeof Directory>

/** A line of the record. */
export const RecordLine = z.object({
  id: z.string(),
  at: z.string(),
  who: z.string(),
  source: z.string(),
  act: z.string(),
  about: z.string(),
  form: z.string().nullable(),
  details: z.record(z.string(), z.string()),
})
export type RecordLine = z.infer<typeof RecordLine>
export const RecordQuery = z.object({
  page: z.coerce.number().int().min(1).max(100_000).default(1),
  act: z.string().max(60).default(''),
  search: z.string().max(200).default(''),
})
export const RecordPage = z.object({ count: z.int(), lines: z.array(RecordLine) })

/** What the simulated post has delivered to people of the workspace, the newest first. */
export const Post = z.object({ letters: z.array(Letter) })

/** Accounts and what they may do: schemas both sides share. */
import { z } from 'zod'
import { plainText, VOICES } from '../core'

/** From the least to the most that one may do. A reader has no account: a link shows one report. */
export const ROLES = ['apprentice', 'assessor', 'owner'] as const
export type Role = (typeof ROLES)[number]
export const ROLE_WORDS: Record<Role, string> = {
  apprentice: 'records; does not sign, share or delete',
  assessor: 'records, shares and deletes own jobs',
  owner: 'everything, and the accounts',
}
export const mayAtLeast = (role: Role, least: Role): boolean =>
  ROLES.indexOf(role) >= ROLES.indexOf(least)

export const Login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9][a-z0-9._@-]{1,79}$/, '2 to 80 letters, digits and . _ @ -')
export const Password = z
  .string()
  .min(10, 'at least 10 characters')
  .max(200, 'at most 200 characters')
export const PersonName = plainText(120).trim().min(1, 'a name')

export const Person = z.object({
  id: z.string(),
  login: z.string(),
  name: z.string(),
  role: z.enum(ROLES),
})
export type Person = z.infer<typeof Person>
export const PersonRow = Person.extend({
  createdAt: z.string(),
  isDisabled: z.boolean(),
  jobs: z.number(),
})
export type PersonRow = z.infer<typeof PersonRow>
export const People = z.object({ people: z.array(PersonRow) })
export const NewPerson = z.strictObject({
  login: Login,
  name: PersonName,
  role: z.enum(ROLES),
  password: Password,
})
export const ChangePerson = z.strictObject({
  name: PersonName.optional(),
  role: z.enum(ROLES).optional(),
  isDisabled: z.boolean().optional(),
  password: Password.optional(),
})
export const ChangeOwn = z.strictObject({ current: z.string().max(200), password: Password })

export const SignIn = z.strictObject({
  login: Login,
  password: z.string().min(1, 'the password').max(200),
})
export const Setup = z.strictObject({
  code: z.string().trim().toUpperCase().max(40),
  login: Login,
  name: PersonName,
  password: Password,
})
/** What the server says of itself and of who asks, before anything else. */
export const SessionState = z.object({
  /** `open`: a demo, nobody signs in · `setup`: no account yet · `closed`: sign in first · `in`: signed in. */
  door: z.enum(['open', 'setup', 'closed', 'in']),
  person: Person.nullable(),
  serverTime: z.string(),
})
export type SessionState = z.infer<typeof SessionState>

export const PasskeyList = z.object({
  passkeys: z.array(z.object({ id: z.string(), createdAt: z.string() })),
})
export const Access = z.object({
  owner: Person.nullable(),
  members: z.array(Person),
  others: z.array(Person),
})
export const SetMembers = z.strictObject({ members: z.array(z.string().max(60)).max(200) })

export const Link = z.object({
  id: z.string(),
  voice: z.string(),
  madeBy: z.string(),
  madeAt: z.string(),
  expiresAt: z.string(),
  isRevoked: z.boolean(),
})
export type Link = z.infer<typeof Link>
export const Links = z.object({ links: z.array(Link) })
export const NewLink = z.strictObject({
  voice: z.enum(VOICES),
  days: z.number().int().min(1, 'at least a day').max(365, 'at most a year'),
})
/** The token is told once; only its hash is kept. */
export const MadeLink = Link.extend({ token: z.string() })

export const AuditEntry = z.object({
  seq: z.number(),
  at: z.string(),
  who: z.string(),
  device: z.string(),
  action: z.string(),
  jobId: z.string().nullable(),
  detail: z.string(),
})
export type AuditEntry = z.infer<typeof AuditEntry>
export const Audit = z.object({ entries: z.array(AuditEntry) })
export const AuditQuery = z.object({ before: z.coerce.number().int().min(0).optional() })

export const Settings = z.strictObject({
  /** Days a deleted job can be brought back. */
  trashDays: z.number().int().min(1, 'at least a day').max(3650, 'at most ten years'),
  /** Days the audit trail is kept; 0 for ever. */
  auditDays: z.number().int().min(0, '0 keeps it for ever').max(36500, 'at most a hundred years'),
})
export type Settings = z.infer<typeof Settings>
export const DEFAULT_SETTINGS: Settings = { trashDays: 30, auditDays: 0 }

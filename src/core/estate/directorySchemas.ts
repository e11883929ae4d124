import type { FromSchema } from 'json-schema-to-ts'
import { count, idSchema, nameSchema, nullableInstant, nullableText, object, revision } from './schemas'

/** A certificate's SHA-256, as its console shows it. */
const fingerprintSchema = { type: 'string', pattern: '^[0-9A-F]{2}(:[0-9A-F]{2}){31}$' } as const

/** Of RFC 2307: whole numbers beyond what a column of integers holds; null where the directory gives none. */
const keptNumber = { type: ['number', 'null'], multipleOf: 1, minimum: 0, maximum: 4_294_967_294 } as const

/** Where people and groups are kept: read over LDAP (RFC 4511), sealed by TLS. */
export const directorySchema = object({
  id: idSchema,
  name: nameSchema,
  address: { type: 'string', format: 'uri', maxLength: 500 },
  /** Of the certificate that was accepted: another gets no password. */
  fingerprint: fingerprintSchema,
  baseDn: { type: 'string', minLength: 1, maxLength: 1000 },
  /** The name by which it is read. */
  readAs: { type: 'string', minLength: 1, maxLength: 1000 },
  state: { enum: ['not read yet', 'answering', 'not answering'] },
  stateWhy: nullableText,
  readAt: nullableInstant,
  /** Until when the certificate is valid that it showed last. */
  certificateEndsAt: nullableInstant,
  personCount: count,
  groupCount: count,
  revision,
})

/** A person or a group, as a directory has it. */
export const principalSchema = object({
  id: idSchema,
  directoryId: idSchema,
  /** By which the directory knows it, whatever it is renamed to: `entryUUID` (RFC 4530). */
  durableId: { type: 'string', minLength: 1, maxLength: 100 },
  sort: { enum: ['person', 'group'] },
  /** By which it signs in, or is written: `uid` or `cn`. */
  account: nameSchema,
  name: nameSchema,
  dn: { type: 'string', maxLength: 2000 },
  /** To files: uid of a person, gid of a group. */
  number: keptNumber,
  primaryGid: keptNumber,
  /** Groups of which it is a member itself, by their durable ids. */
  memberOf: { type: 'array', maxItems: 2000, items: { type: 'string', maxLength: 100 } },
  isDisabled: { type: 'boolean' },
  /** Since when its directory no longer has it. */
  goneSince: nullableInstant,
  revision,
})

export type Directory = Readonly<FromSchema<typeof directorySchema>>
export type Principal = Readonly<FromSchema<typeof principalSchema>>

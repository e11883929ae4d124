import type { FromSchema } from 'json-schema-to-ts'
import { bytesSchema, idSchema, locator, nameSchema, nullableText, object, revision, type Bytes } from './schemas'

/** Versions of NFS that hosts may mount by. Sources: RFC 1813, RFC 8881, RFC 7862. */
export const nfsVersions = ['NFSv3', 'NFSv4_1', 'NFSv4_2'] as const
/** What is served over SMB has a table of grants beside its mode. Source: MS-SMB2. */
export const smbVersions = ['SMBv3_1_1'] as const
export const fileProtocols = [...nfsVersions, ...smbVersions] as const
export type FileProtocol = (typeof fileProtocols)[number]

/** A number of a user or of a group, as files carry it; the last one there is stands for nobody. Source: POSIX, RFC 8881. */
export const posixIdSchema = { type: 'integer', minimum: 0, maximum: 4_294_967_294 } as const

/** Ids go beyond what a column of whole numbers holds. */
const keptId = { type: 'number', multipleOf: 1, minimum: 0, maximum: 4_294_967_294 } as const

export const exportRuleSchema = object({
  client: { type: 'string', maxLength: 255 },
  access: { enum: ['rw', 'ro', 'none'] },
  squash: { enum: ['none', 'root', 'all'] },
  anonUid: posixIdSchema,
  anonGid: posixIdSchema,
  flavours: { type: 'array', maxItems: 4, items: { enum: ['sys', 'krb5', 'krb5i', 'krb5p'] } },
})

/** Who may do what over SMB; `who` is a durable id of the directory, or `*`. */
export const shareGrantSchema = object({
  who: { type: 'string', minLength: 1, maxLength: 100 },
  name: { type: 'string', maxLength: 255 },
  right: { enum: ['none', 'read', 'change', 'full'] },
})

/** An entry of an access list (RFC 8881, 6.2.1): `OWNER@`, `GROUP@`, `EVERYONE@`, or `uid:` or `gid:` with a number. */
const ofEveryEntry = object({
  kind: { enum: ['allow', 'deny'] },
  who: { type: 'string', minLength: 1, maxLength: 20 },
  may: { enum: ['read', 'write', 'both'] },
})
export const accessEntrySchema = {
  ...ofEveryEntry,
  properties: {
    ...ofEveryEntry.properties,
    /** Whether what is made in it has the entry too; left out: it has not. */
    isInherited: { type: 'boolean' },
  },
} as const

const bytesText = { type: ['string', 'null'], pattern: '^[0-9]{1,25}$' } as const

const quotaPath = { type: 'string', minLength: 1, maxLength: 1000 } as const
const ofEveryQuota = object({
  path: quotaPath,
  of: { enum: ['tree', 'each directory', 'user', 'group', 'project'] },
  /** Of one user or group; null for each. */
  id: { type: ['number', 'null'], multipleOf: 1, minimum: 0, maximum: 4_294_967_294 },
  softBytes: bytesText,
  hardBytes: bytesText,
  graceDays: { type: 'integer', minimum: 0, maximum: 3650 },
})

/** How much may be written below a path; bytes are decimal text. */
export const quotaSchema = {
  ...ofEveryQuota,
  properties: {
    ...ofEveryQuota.properties,
    /** Of a project alone: what it is called, and where else than at the path. */
    project: object({
      name: { type: 'string', maxLength: 60 },
      alsoAt: { type: 'array', maxItems: 50, items: quotaPath },
    }),
  },
} as const

export const fileRuleSchema = object({
  pattern: { type: 'string', maxLength: 255 },
  content: { enum: ['any', 'audio', 'video', 'picture', 'archive', 'program', 'document'] },
  verdict: { enum: ['deny', 'report'] },
})

/** What has been written of what a quota counts together. */
const quotaUsageSchema = object({
  index: { type: 'integer', minimum: 0 },
  key: { type: 'string', maxLength: 1100 },
  usedBytes: { type: 'string', pattern: '^[0-9]{1,25}$' },
  overSoftSince: { type: ['string', 'null'], format: 'date-time' },
})

/** By which hosts reach the files of a system: a name, and an address on each of the units on which it stands. */
export const fileServiceSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  name: nameSchema,
  nameServers: { type: 'array', items: { type: 'string', maxLength: 255 } },
  searchSuffixes: { type: 'array', items: { type: 'string', maxLength: 255 } },
  instances: {
    type: 'array',
    items: object({
      unit: nameSchema,
      address: { type: 'string', maxLength: 64 },
      prefixLength: { type: 'integer', minimum: 0, maximum: 128 },
      /** The unit that answers at this address now; null while none does. */
      standsOn: nullableText,
    }),
  },
  /** The directory whose people it knows, by its base; null while it belongs to none. */
  joinedTo: nullableText,
  /** Its own account there. */
  joinedAs: nullableText,
  /** Who may use any of its shares over SMB, besides those whom the share itself lets. */
  grants: { type: 'array', maxItems: 1000, items: shareGrantSchema },
  revision,
})

/** A file system that its system keeps on a volume, shared or not. */
export const fileSystemSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  volumeId: idSchema,
  name: nameSchema,
  sizeBytes: bytesSchema,
  usedBytes: bytesSchema,
  /** As how many shares hosts may mount it. */
  shareCount: { type: 'integer', minimum: 0 },
  revision,
})

/** A file system as hosts may mount it, and by whom it may be read and written. */
export const shareSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  fileServiceId: idSchema,
  /** That carries its file system. */
  volumeId: idSchema,
  name: nameSchema,
  /** As the service exports it: `/ct-scans`. */
  path: { type: 'string', maxLength: 255 },
  protocols: { type: 'array', items: { enum: [...fileProtocols] } },
  /** Of its root directory. */
  ownerUid: keptId,
  ownerGid: keptId,
  mode: { type: 'string', pattern: '^[0-7]{4}$' },
  /** Where it has entries they count at its root, and not the mode. */
  acl: { type: 'array', maxItems: 100, items: accessEntrySchema },
  rules: { type: 'array', maxItems: 1000, items: exportRuleSchema },
  grants: { type: 'array', maxItems: 1000, items: shareGrantSchema },
  /** Those of its file service, which count for it as well. */
  serviceGrants: { type: 'array', maxItems: 1000, items: shareGrantSchema },
  quotas: { type: 'array', maxItems: 1000, items: quotaSchema },
  fileRules: { type: 'array', maxItems: 200, items: fileRuleSchema },
  /** The fullest first; of very many only those. */
  quotaUsage: { type: 'array', maxItems: 1000, items: quotaUsageSchema },
  /** Where hosts find its snapshots, and whether they do; null where its system has no such directory. */
  snapshotDirectory: {
    oneOf: [
      { type: 'null' },
      object({ name: { type: 'string', minLength: 1, maxLength: 255 }, isShown: { type: 'boolean' } }),
    ],
  },
  sizeBytes: bytesSchema,
  usedBytes: bytesSchema,
  /** What people call it by besides its name. */
  labels: { type: 'array', maxItems: 20, items: { type: 'string', minLength: 1, maxLength: 60 } },
  /** From how much of it used on it is warned of; null as of all. */
  warnPercent: { type: ['integer', 'null'], minimum: 1, maximum: 99 },
  revision,
})

export type FileSystem = Readonly<FromSchema<typeof fileSystemSchema, Bytes>>
export type FileService = Readonly<FromSchema<typeof fileServiceSchema>>
export type Share = Readonly<FromSchema<typeof shareSchema, Bytes>>

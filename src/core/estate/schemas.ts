import type { FromSchema } from 'json-schema-to-ts'
import { ownScheduleSchema } from './scheduleSchemas'
import { poolSchemeSchema } from './schemeSchemas'

/** Bytes travel as decimal text, since a JSON number loses bits above 2^53; in the model they are `bigint`. */
export const bytesSchema = { type: 'string', format: 'bytes', pattern: '^(0|[1-9][0-9]{0,24})$' } as const
export const idSchema = { type: 'string', format: 'uuid' } as const
export const nameSchema = { type: 'string', minLength: 1, maxLength: 255 } as const
/** An id that a draft may not have named yet. */
export const idOrBlankSchema = { type: 'string', pattern: '^([0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12})?$' } as const
export const nullableId = { type: ['string', 'null'], format: 'uuid' } as const
export const nullableText = { type: ['string', 'null'], maxLength: 2000 } as const
export const instant = { type: 'string', format: 'date-time' } as const
export const nullableInstant = { type: ['string', 'null'], format: 'date-time' } as const
export const locator = { type: 'string', minLength: 1, maxLength: 2048 } as const
export const revision = { type: 'integer', minimum: 1 } as const
export const count = { type: 'integer', minimum: 0 } as const

export const object = <const P extends Readonly<Record<string, unknown>>>(properties: P) =>
  ({
    type: 'object',
    required: Object.keys(properties) as (keyof P & string)[],
    additionalProperties: false,
    properties,
  }) as const

export const siteSchema = object({ id: idSchema, name: nameSchema, revision })

export const systemSchema = object({
  id: idSchema,
  siteId: nullableId,
  name: nameSchema,
  /** Groups of initiators as the system has them, whoever made them. */
  accessGroups: {
    type: 'array',
    items: object({ name: { type: 'string' }, initiators: { type: 'array', items: { type: 'string' } } }),
  },
  /** Initiators that have logged in to it, or are known to it, and are in none of its groups: they are shown nothing. */
  ungrouped: { type: 'array', items: { type: 'string' } },
  address: { type: 'string', format: 'uri' },
  maker: nameSchema,
  model: nameSchema,
  serial: nameSchema,
  uuid: { type: 'string' },
  firmware: nullableText,
  reach: { enum: ['answering', 'not answering'] },
  reachWhy: nullableText,
  seenAt: nullableInstant,
  /** The cluster that its nodes form, once they do. */
  clusterName: nullableText,
  /** The nodes or controllers on which a file service can stand; none where it serves no files. */
  fileUnits: { type: 'array', items: { type: 'string', maxLength: 255 } },
  /** Serials of the systems with which it has been paired, so that volumes are mirrored to them. */
  partners: { type: 'array', items: { type: 'string', maxLength: 255 } },
  /** The highest of its temperatures; null where it states none. */
  warmestCelsius: { type: ['number', 'null'] },
  revision,
})

export const controllerSchema = object({
  id: idSchema,
  systemId: idSchema,
  name: nameSchema,
  model: nullableText,
  firmware: nullableText,
  state: { enum: ['fine', 'failed'] },
  revision,
})

export const enclosureSchema = object({
  id: idSchema,
  systemId: idSchema,
  name: nameSchema,
  bayCount: count,
  baysPerRow: count,
  revision,
})

/** A counter may be larger than a column of integers holds; null where the drive does not say. */
const errorCount = { type: ['number', 'null'], multipleOf: 1, minimum: 0 } as const

export const driveSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  enclosureId: nullableId,
  bay: count,
  name: nameSchema,
  media: { enum: ['HDD', 'SSD'] },
  protocol: { enum: ['NVMe', 'SAS', 'SATA'] },
  capacityBytes: bytesSchema,
  model: nameSchema,
  serial: nameSchema,
  wwn: nullableText,
  firmware: nullableText,
  state: { enum: ['fine', 'failing', 'failed'] },
  role: { enum: ['unassigned', 'data', 'spare', 'cache'] },
  poolId: nullableId,
  groupIndex: { type: ['integer', 'null'] },
  rotationSpeedRpm: { type: ['integer', 'null'] },
  powerOnHours: { type: ['integer', 'null'] },
  wearRatio: { type: ['number', 'null'] },
  /** Reads and writes that succeeded at a further try, and those that never did, since the drive began. */
  correctedErrors: errorCount,
  lostErrors: errorCount,
  /** The node in which it stands, where the system is a row of nodes. */
  nodeId: nullableId,
  isBoot: { type: 'boolean' },
  /** Its locate light is on. */
  isLit: { type: 'boolean' },
  /** Full drive writes a day that its maker warrants. */
  driveWritesPerDay: { type: ['number', 'null'] },
  /** What an earlier use has left on it. */
  leftOver: {
    oneOf: [
      { type: 'null' },
      object({
        system: nullableText,
        lastUsedAt: nullableInstant,
        partitions: { type: 'array', items: { type: 'string', maxLength: 200 } },
      }),
    ],
  },
  /** Its bank in the node, counted from 1. */
  bank: { type: ['integer', 'null'] },
  revision,
})

export const portSchema = object({
  id: idSchema,
  systemId: idSchema,
  name: nameSchema,
  protocol: { type: 'string' },
  speedBitsPerSecond: { type: 'number', minimum: 0 },
  isUp: { type: 'boolean' },
  address: nullableText,
  /** The controller at which it stands. */
  controllerId: nullableId,
  /** The name by which hosts log in here, such as an IQN. */
  targetName: nullableText,
  revision,
})

export const poolSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  name: nameSchema,
  scheme: poolSchemeSchema,
  failureDomain: { enum: ['node', 'enclosure', 'rack', null] },
  driveKind: object({ media: { enum: ['HDD', 'SSD'] }, protocol: { enum: ['NVMe', 'SAS', 'SATA'] } }),
  groupSizes: { type: 'array', items: count },
  spareCount: count,
  state: { enum: ['starting', 'fine', 'degraded', 'failed'] },
  rawBytes: bytesSchema,
  usableBytes: bytesSchema,
  writtenBytes: bytesSchema,
  provisionedBytes: bytesSchema,
  metadataBytes: bytesSchema,
  snapshotReserveBytes: bytesSchema,
  /** What snapshots hold that their volumes no longer have; from the reserve first, then from what volumes could write. */
  snapshotBytes: bytesSchema,
  redundancyBytes: bytesSchema,
  strandedBytes: bytesSchema,
  spareBytes: bytesSchema,
  rebuildReserveBytes: bytesSchema,
  /** The application whose volumes alone may come from it; null for all. */
  keptFor: nullableText,
  revision,
})

export const volumeSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  poolId: idSchema,
  name: nameSchema,
  naa: { type: 'string', pattern: '^[0-9a-f]{32}$' },
  sizeBytes: bytesSchema,
  isThin: { type: 'boolean' },
  writtenBytes: bytesSchema,
  /** What can no longer be read of it: more was lost at once than its pool survives. */
  lostBytes: bytesSchema,
  state: { enum: ['in use', 'holding'] },
  holdingUntil: nullableInstant,
  /** The snapshot with which a clone still shares what neither has written since. */
  cloneOfId: nullableId,
  /** With which others its snapshots are of one instant. */
  consistencyGroupId: nullableId,
  /** What is promised of it; null for a volume under no class. */
  classId: nullableId,
  /** By what snapshots are taken of it in the place of its class's schedule. */
  ownSchedule: ownScheduleSchema,
  /** What it serves, as people call it; null where nobody has said. */
  application: nullableText,
  /** It is copied from and never written. */
  isImage: { type: 'boolean' },
  /** What its system lets it be asked for; null where the system takes no limits, and each null where it has none. */
  limits: {
    oneOf: [
      { type: 'null' },
      object({ requestsPerSecond: { type: ['integer', 'null'] }, bytesPerSecond: { type: ['number', 'null'] } }),
    ],
  },
  /** With what of another system it is kept alike; null for one that stands alone. */
  mirror: {
    oneOf: [
      { type: 'null' },
      object({
        /** Hosts read and write the source; the target follows. */
        role: { enum: ['source', 'target'] },
        state: { enum: ['filling', 'alike', 'broken'] },
        /** Serial of the other system; null where this one does not say. */
        partner: { type: ['string', 'null'], maxLength: 255 },
      }),
    ],
  },
  revision,
})

export const hostGroupSchema = object({ id: idSchema, name: nameSchema, revision })

export const hostSchema = object({
  id: idSchema,
  hostGroupId: idSchema,
  /** Where it stands; null where nobody has said. */
  siteId: nullableId,
  name: nameSchema,
  /** Where it is asked what it sees; null for a host that cannot be asked. */
  agentAddress: { type: ['string', 'null'], format: 'uri' },
  operatingSystem: nullableText,
  initiators: { type: 'array', items: { type: 'string', maxLength: 255 } },
  /** By which it is known on the network. */
  addresses: { type: 'array', items: { type: 'string', maxLength: 64 } },
  /** What is asked of it by CHAP where it logs in: that it proves itself, or that its systems do too. */
  signIn: { enum: ['nothing', 'one-way', 'mutual'] },
  revision,
})

export const mappingSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  /** Null for what is shown that is no volume: one of its snapshots. */
  volumeId: nullableId,
  snapshotId: nullableId,
  hostGroupId: nullableId,
  groupName: nameSchema,
  lun: count,
  revision,
})

/** What a look at a management address found, before the system is registered. Secrets are kept apart from it. */
export const probeSchema = object({
  id: idSchema,
  address: { type: 'string' },
  at: instant,
  isEncrypted: { type: 'boolean' },
  certificateFingerprint: nullableText,
  certificateTrouble: nullableText,
  uuid: { type: 'string' },
  maker: { type: 'string' },
  model: { type: 'string' },
  serial: { type: 'string' },
  firmware: nullableText,
  redfishVersion: { type: 'string' },
  controllers: count,
  enclosures: count,
  drives: { type: 'array', items: object({ words: { type: 'string' }, count, bytes: bytesSchema }) },
  pools: count,
  volumes: count,
})

export type Bytes = { deserialize: [{ pattern: { type: 'string'; format: 'bytes' }; output: bigint }] }
export type Site = Readonly<FromSchema<typeof siteSchema>>
export type System = Readonly<FromSchema<typeof systemSchema>>
export type Controller = Readonly<FromSchema<typeof controllerSchema>>
export type Enclosure = Readonly<FromSchema<typeof enclosureSchema>>
export type Drive = Readonly<FromSchema<typeof driveSchema, Bytes>>
export type Port = Readonly<FromSchema<typeof portSchema>>
export type Pool = Readonly<FromSchema<typeof poolSchema, Bytes>>
export type Volume = Readonly<FromSchema<typeof volumeSchema, Bytes>>
export type VolumeLimits = NonNullable<Volume['limits']>
export type VolumeMirror = NonNullable<Volume['mirror']>
export type HostGroup = Readonly<FromSchema<typeof hostGroupSchema>>
export type Host = Readonly<FromSchema<typeof hostSchema>>
export type Mapping = Readonly<FromSchema<typeof mappingSchema>>
export type Probe = Readonly<FromSchema<typeof probeSchema, Bytes>>

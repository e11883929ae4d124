import type { FromSchema } from 'json-schema-to-ts'
import { scheduleProperties } from './scheduleSchemas'
import {
  bytesSchema,
  idSchema,
  locator,
  nameSchema,
  nullableId,
  nullableInstant,
  nullableText,
  object,
  revision,
  type Bytes,
} from './schemas'

/** Bytes within what is kept as JSON: they stay text. */
const bytesInText = { type: 'string', pattern: '^(0|[1-9][0-9]{0,24})$' } as const

/** What a volume was at one moment. */
export const snapshotSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  /** Null where the system states none that is known. */
  volumeId: nullableId,
  name: nameSchema,
  naa: { type: 'string', pattern: '^[0-9a-f]{32}$' },
  sizeBytes: bytesSchema,
  /** The moment that it holds: all that had been acknowledged by then. Null until the system says. */
  takenAt: nullableInstant,
  /** Pending until the system says that it is consistent. */
  state: { enum: ['pending', 'consistent', 'failed'] },
  /** What only it holds. */
  ownBytes: bytesSchema,
  /** Bytes whose first holder it is, by the last that holds them; null where the system tells each one's own space only. */
  heldUntil: {
    oneOf: [
      { type: 'null' },
      { type: 'array', items: object({ locator: { type: 'string', maxLength: 2048 }, bytes: bytesInText }) },
    ],
  },
  /** Why it was taken: what somebody gave as the reason. */
  reason: nullableText,
  /** The moment of the schedule for which it was taken; null for one that somebody took. */
  dueAt: nullableInstant,
  /** Why it must not go, whatever the retention says. */
  heldReason: nullableText,
  /** When it goes, where it has been removed and can still be brought back; null otherwise. */
  goesAt: nullableInstant,
  revision,
})

/** Volumes of which snapshots are taken at one instant: what belongs to one application. */
export const consistencyGroupSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  name: nameSchema,
  volumeCount: { type: 'integer', minimum: 0 },
  revision,
})

/** A named set of promises. What is null is not promised. */
export const serviceClassSchema = object({
  id: idSchema,
  name: nameSchema,
  /** Losses at once of drives, or of whatever the pool spreads over, after which everything can still be read. */
  lossesSurvived: { type: ['integer', 'null'], minimum: 0, maximum: 4 },
  media: { enum: ['any', 'SSD', 'HDD'] },
  /** 95 of 100 requests are answered within it. */
  latencyMilliseconds: { type: ['number', 'null'], minimum: 0.05, maximum: 10_000 },
  /** Of what a pool can give, what stays free. */
  headroomRatio: { type: ['number', 'null'], minimum: 0, maximum: 0.9 },
  /** Minutes that a copy on another system may lag behind; 0 loses nothing. */
  copyWithinMinutes: { type: ['integer', 'null'], minimum: 0, maximum: 10_080 },
  /** Who sees what is made under it, where nothing else is said; null for nobody. */
  defaultGroupId: nullableId,
  ...scheduleProperties,
  /** Days in which a removed volume can be brought back; null goes by the estate's setting. */
  holdingDays: { type: ['integer', 'null'], minimum: 1, maximum: 365 },
  revision,
})

export type ConsistencyGroup = Readonly<FromSchema<typeof consistencyGroupSchema>>
export type Snapshot = Readonly<FromSchema<typeof snapshotSchema, Bytes>>
export type ServiceClass = Readonly<FromSchema<typeof serviceClassSchema>>

import type { FromSchema } from 'json-schema-to-ts'
import { count, idSchema, instant, locator, nameSchema, nullableId, nullableText, object, revision } from './schemas'

/** A bare server that can become part of a cluster. */
export const nodeSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  name: nameSchema,
  /** Its full name in the name server. */
  hostName: nullableText,
  rack: nullableText,
  enclosureId: nullableId,
  state: { enum: ['fine', 'not answering'] },
  firmware: nullableText,
  model: nullableText,
  /** Its clock less the system's, in seconds. */
  clockOffsetSeconds: { type: 'number' },
  /** Restarts the node by itself when its storage network or its services do not answer for a while. */
  isRestartServiceOn: { type: 'boolean' },
  /** Capacity drives that it can put behind one cache drive. */
  mostCapacityDrives: count,
  memoryBytes: { type: 'number', minimum: 0 },
  agentAddress: nullableText,
  revision,
})

/** The interface for storage that a node's port carries, once it is set. */
const storageInterface = object({
  family: { enum: ['IPv4', 'IPv6'] },
  address: nullableText,
  prefixLength: { type: 'integer', minimum: 0, maximum: 128 },
  origin: { enum: ['static', 'leased'] },
  isReserved: { type: 'boolean' },
  vlan: { type: ['integer', 'null'] },
})

export const nodePortSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  nodeId: idSchema,
  name: nameSchema,
  mac: { type: 'string', maxLength: 64 },
  speedBitsPerSecond: { type: 'number', minimum: 0 },
  isUp: { type: 'boolean' },
  mtu: { type: 'integer', minimum: 0 },
  /** Other traffic that goes through it. */
  traffic: { type: 'array', items: { type: 'string', maxLength: 100 } },
  /** The far end of its cable, as both ends state it. */
  switchPortId: nullableId,
  storage: { oneOf: [{ type: 'null' }, storageInterface] },
  revision,
})

export const switchSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  name: nameSchema,
  model: nullableText,
  firmware: nullableText,
  revision,
})

export const switchPortSchema = object({
  id: idSchema,
  systemId: idSchema,
  locator,
  switchId: idSchema,
  name: nameSchema,
  mtu: { type: 'integer', minimum: 0 },
  vlans: { type: 'array', items: { type: 'integer' } },
  isUp: { type: 'boolean' },
  /** The port of another switch to which it is cabled. */
  peerPortId: nullableId,
  revision,
})

/** What went through from node to node, all pairs, when it was last tried. */
export const pathProbeSchema = object({
  systemId: idSchema,
  at: instant,
  wantedMtu: { type: 'integer' },
  answers: {
    type: 'array',
    items: object({
      fromNodeId: idSchema,
      toNodeId: idSchema,
      /** The largest packet that passed whole, in bytes of MTU; null where none did. */
      passedMtu: { type: ['integer', 'null'] },
      why: nullableText,
    }),
  },
})

/** What the name server said, forward (addresses of a name) or reverse (names of an address). */
export const nameAnswerSchema = object({
  query: { type: 'string', maxLength: 255 },
  kind: { enum: ['forward', 'reverse'] },
  answers: { type: 'array', items: { type: 'string', maxLength: 255 } },
  why: nullableText,
  at: instant,
})

/** A maker's list of firmware, as a file that needs no internet. Unknown fields are refused: a misspelt one must not pass unseen. */
export const catalogueSchema = object({
  format: { const: 'wendrel-firmware-catalogue-1' },
  maker: nameSchema,
  issuedAt: instant,
  entries: {
    type: 'array',
    maxItems: 5000,
    items: object({
      component: { enum: ['node', 'drive', 'switch'] },
      model: nameSchema,
      version: { type: 'string', minLength: 1, maxLength: 60 },
      releasedAt: instant,
      isUrgent: { type: 'boolean' },
      notes: { type: 'string', maxLength: 2000 },
    }),
  },
})

export type Node = Readonly<FromSchema<typeof nodeSchema>>
export type NodePort = Readonly<FromSchema<typeof nodePortSchema>>
export type StorageInterface = Readonly<FromSchema<typeof storageInterface>>
export type Switch = Readonly<FromSchema<typeof switchSchema>>
export type SwitchPort = Readonly<FromSchema<typeof switchPortSchema>>
export type PathProbe = Readonly<FromSchema<typeof pathProbeSchema>>
export type NameAnswer = Readonly<FromSchema<typeof nameAnswerSchema>>

/** A finding that somebody lets stand until a day. */
export interface SignedException {
  readonly id: string
  readonly findingKey: string
  /** How grave it may be; null for however grave. */
  readonly gravity: 'now' | 'soon' | 'note' | null
  readonly reason: string
  readonly signedBy: string
  readonly signedAt: string
  readonly until: string
}
export type Catalogue = Readonly<FromSchema<typeof catalogueSchema>>

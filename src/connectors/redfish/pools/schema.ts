import { compile, head, bytes, id, references, status, optionalText, ownParts, type Checked } from '../schema'

/** Pools, and what gives them their space. Links may stand in a resource, or lead to where they stand. */
const linkList = { type: 'object', properties: { '@odata.id': id, Members: references } } as const
export const capacitySource = {
  type: 'object',
  properties: { '@odata.id': id, ProvidingDrives: linkList, ProvidingPools: linkList },
} as const
export const isCapacitySource = compile(capacitySource)
export const isLinkList = compile({
  type: 'object',
  required: ['Members'],
  properties: { Members: references, 'Members@odata.nextLink': optionalText },
} as const)

export const capacityPart = {
  type: 'object',
  properties: { AllocatedBytes: bytes, ConsumedBytes: bytes, ProvisionedBytes: bytes, GuaranteedBytes: bytes },
} as const

export const isPool = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'Capacity', 'CapacitySources', 'Status'],
  properties: {
    ...head,
    Description: optionalText,
    SupportedRAIDTypes: { type: ['array', 'null'], items: { type: 'string' } },
    Capacity: {
      type: 'object',
      required: ['Data'],
      properties: { Data: capacityPart, Metadata: capacityPart, Snapshot: capacityPart },
    },
    CapacitySources: { type: 'array', items: capacitySource },
    Oem: ownParts,
    Links: { type: 'object', properties: { DedicatedSpareDrives: references } },
    Status: status,
  },
} as const)

export type RedfishSource = Checked<typeof isCapacitySource>
export type RedfishPool = Checked<typeof isPool>

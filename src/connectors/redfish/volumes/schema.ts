import { compile, head, bytes, status, names, optionalText, type Checked } from '../schema'
import { ownPartsOf } from '../makers'
import { capacityPart, capacitySource } from '../pools/schema'

/** Volumes. */
export const isVolume = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'CapacityBytes', 'Identifiers', 'CapacitySources'],
  properties: {
    ...head,
    /** What an administrator has named it; `Name` may be the system's own. */
    DisplayName: optionalText,
    Description: optionalText,
    CapacityBytes: bytes,
    ProvisioningPolicy: { type: ['string', 'null'] },
    Identifiers: names,
    Capacity: { type: 'object', properties: { Data: capacityPart } },
    Oem: ownPartsOf('volume'),
    CapacitySources: { type: 'array', minItems: 1, items: capacitySource },
    Status: status,
  },
} as const)

export type RedfishVolume = Checked<typeof isVolume>

import { compile, head, bytes, status, names, optionalText, reference, references, text, type Checked } from '../schema'
import { ownPartsOf } from '../makers'
import { capacityPart, capacitySource } from '../pools/schema'

const action = { type: 'object', properties: { target: text } } as const
/** What it is a copy of, or what is a copy of it. Source: Swordfish, StorageReplicaInfo. */
const replicaInfo = {
  type: 'object',
  properties: {
    ReplicaRole: optionalText,
    ReplicaType: optionalText,
    ReplicaState: optionalText,
    RemoteSourceReplica: optionalText,
    ConsistencyState: optionalText,
    WhenActivated: optionalText,
    WhenSynced: optionalText,
    Replica: { oneOf: [{ type: 'null' }, reference] },
  },
} as const

/** Volumes and their snapshots. */
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
    ReplicaInfos: { type: 'array', maxItems: 4096, items: replicaInfo },
    /** URIs of the far ends of its mirrors. */
    RemoteReplicaTargets: { type: 'array', maxItems: 64, items: { type: 'string', maxLength: 2048 } },
    Actions: {
      type: 'object',
      properties: {
        '#Volume.CreateReplicaTarget': action,
        '#Volume.SplitReplication': action,
        '#Volume.ReverseReplicationRelationship': action,
        '#Volume.RemoveReplicaRelationship': action,
      },
    },
    Links: { type: 'object', properties: { ConsistencyGroups: references } },
    Status: status,
  },
} as const)

export type RedfishVolume = Checked<typeof isVolume>

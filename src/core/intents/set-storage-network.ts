import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'nodes', 'origin', 'vlan', 'mtu'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    nodes: {
      type: 'array',
      maxItems: 256,
      items: {
        type: 'object',
        required: ['nodeId', 'portId', 'address'],
        additionalProperties: false,
        properties: {
          nodeId: idSchema,
          portId: idSchema,
          /** With its subnet, such as `10.20.30.11/24`; empty where it is leased. */
          address: { type: 'string', maxLength: 64 },
        },
      },
    },
    origin: { enum: ['static', 'leased'] },
    /** Of leased addresses; addresses set by hand tell it themselves. IPv4 where it is left out. */
    family: { enum: ['IPv4', 'IPv6'] },
    vlan: { type: ['integer', 'null'] },
    mtu: { type: 'integer' },
  },
} as const
export type SetStorageNetworkIntent = FromSchema<typeof schema>

export const setStorageNetworkIntent = {
  kind: 'set-storage-network',
  title: 'Set the storage network',
  verb: 'Carry out',
  place: '/build/network?system={systemId}',
  intentSchema: schema,
} as const satisfies IntentKind

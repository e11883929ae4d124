import type { FromSchema } from 'json-schema-to-ts'

const id = { type: 'string', format: 'uuid' } as const

export const intentSchema = {
  type: 'object',
  required: ['systemId', 'nodes', 'origin', 'vlan', 'mtu'],
  additionalProperties: false,
  properties: {
    systemId: id,
    nodes: {
      type: 'array',
      maxItems: 256,
      items: {
        type: 'object',
        required: ['nodeId', 'portId', 'address'],
        additionalProperties: false,
        properties: {
          nodeId: id,
          portId: id,
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
export type Intent = FromSchema<typeof intentSchema>

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
    vlan: { type: ['integer', 'null'] },
    mtu: { type: 'integer' },
  },
} as const
export type Intent = FromSchema<typeof intentSchema>

import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema, idSchema, raidSchemeSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'name', 'driveIds', 'scheme', 'maxGroupDrives', 'spareCount', 'snapshotSharePercent'],
  additionalProperties: false,
  properties: {
    systemId: idOrBlankSchema,
    name: { type: 'string', maxLength: 255 },
    driveIds: {
      type: 'array',
      maxItems: 5000,
      uniqueItems: true,
      items: idSchema,
    },
    scheme: raidSchemeSchema,
    maxGroupDrives: { type: 'integer', minimum: 1, maximum: 64 },
    spareCount: { type: 'integer', minimum: 0, maximum: 100 },
    snapshotSharePercent: { type: 'number', minimum: 0, maximum: 50 },
  },
} as const
export type CreatePoolIntent = FromSchema<typeof schema>

export const createPoolIntent = {
  kind: 'create-pool',
  title: 'Create a pool',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  intentSchema: schema,
} as const satisfies IntentKind

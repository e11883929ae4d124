import type { FromSchema, JSONSchema } from 'json-schema-to-ts'
import { raidSchemeSchema } from '@/core/estate'

export const intentSchema = {
  type: 'object',
  required: ['systemId', 'name', 'driveIds', 'scheme', 'maxGroupDrives', 'spareCount', 'snapshotSharePercent'],
  additionalProperties: false,
  properties: {
    systemId: { type: 'string', maxLength: 36, pattern: '^([0-9a-f-]{36})?$' },
    name: { type: 'string', maxLength: 255 },
    driveIds: {
      type: 'array',
      maxItems: 5000,
      uniqueItems: true,
      items: { type: 'string', pattern: '^[0-9a-f-]{36}$' },
    },
    scheme: raidSchemeSchema,
    maxGroupDrives: { type: 'integer', minimum: 1, maximum: 64 },
    spareCount: { type: 'integer', minimum: 0, maximum: 100 },
    snapshotSharePercent: { type: 'number', minimum: 0, maximum: 50 },
  },
} as const satisfies JSONSchema
export type Intent = FromSchema<typeof intentSchema>

import { idOrBlankSchema } from '@/core/estate'
import type { FromSchema, JSONSchema } from 'json-schema-to-ts'

/** `size` is text with its unit, as an administrator or a script writes it: `4 GiB`, `1.5 TB`. An empty host group maps to nobody. */
export const intentSchema = {
  type: 'object',
  required: ['name', 'purpose', 'size', 'poolId', 'isThin', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    name: { type: 'string', maxLength: 255 },
    purpose: { type: 'string', maxLength: 60 },
    size: { type: 'string', maxLength: 80 },
    poolId: idOrBlankSchema,
    isThin: { type: 'boolean' },
    hostGroupId: idOrBlankSchema,
  },
} as const satisfies JSONSchema
export type Intent = FromSchema<typeof intentSchema>

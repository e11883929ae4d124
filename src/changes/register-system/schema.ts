import { idOrBlankSchema } from '@/core/estate'
import type { FromSchema, JSONSchema } from 'json-schema-to-ts'

/** `probeId` names a first look at the system's address, which holds the credentials sealed: they are never part of an intent. */
export const intentSchema = {
  type: 'object',
  required: ['probeId', 'name', 'siteId', 'isPlainHttpAccepted', 'acceptedFingerprint'],
  additionalProperties: false,
  properties: {
    probeId: idOrBlankSchema,
    name: { type: 'string', maxLength: 255 },
    siteId: idOrBlankSchema,
    isPlainHttpAccepted: { type: 'boolean' },
    acceptedFingerprint: { type: 'string', maxLength: 128 },
  },
} as const satisfies JSONSchema
export type Intent = FromSchema<typeof intentSchema>

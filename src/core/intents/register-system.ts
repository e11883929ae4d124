import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

/** `probeId` names a first look at the system's address, which holds the credentials sealed: they are never part of an intent. */
const schema = {
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
} as const
export type RegisterSystemIntent = FromSchema<typeof schema>

export const registerSystemIntent = {
  kind: 'register-system',
  title: 'Register a system',
  verb: 'Register',
  place: '/build',
  intentSchema: schema,
} as const satisfies IntentKind

import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'driveIds', 'isOn'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    driveIds: { type: 'array', maxItems: 1000, items: idSchema },
    isOn: { type: 'boolean' },
  },
} as const
export type SetLocateLightIntent = FromSchema<typeof schema>

export const setLocateLightIntent = {
  kind: 'set-locate-light',
  title: 'Switch the locate light of drives',
  verb: 'Carry out',
  place: '/build/drives?drive={driveIds}',
  intentSchema: schema,
} as const satisfies IntentKind

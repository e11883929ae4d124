import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'nodeIds', 'isOn'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    nodeIds: { type: 'array', maxItems: 256, items: idSchema },
    isOn: { type: 'boolean' },
  },
} as const
export type SetRestartServiceIntent = FromSchema<typeof schema>

export const setRestartServiceIntent = {
  kind: 'set-restart-service',
  title: 'Switch the restart service of nodes',
  verb: 'Carry out',
  place: '/build/network?system={systemId}',
  intentSchema: schema,
} as const satisfies IntentKind

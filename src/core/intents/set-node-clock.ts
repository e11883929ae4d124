import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'nodeId'],
  additionalProperties: false,
  properties: { systemId: idSchema, nodeId: idSchema },
} as const
export type SetNodeClockIntent = FromSchema<typeof schema>

export const setNodeClockIntent = {
  kind: 'set-node-clock',
  title: 'Set the clock of a node',
  verb: 'Carry out',
  place: '/build/network?system={systemId}&node={nodeId}',
  intentSchema: schema,
} as const satisfies IntentKind

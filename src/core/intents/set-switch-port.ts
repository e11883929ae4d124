import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'switchPortId', 'mtu', 'vlans'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    switchPortId: idSchema,
    mtu: { type: 'integer' },
    vlans: { type: 'array', maxItems: 4094, items: { type: 'integer' } },
  },
} as const
export type SetSwitchPortIntent = FromSchema<typeof schema>

export const setSwitchPortIntent = {
  kind: 'set-switch-port',
  title: 'Set a switch port',
  verb: 'Carry out',
  place: '/build/network?system={systemId}&port={switchPortId}',
  intentSchema: schema,
} as const satisfies IntentKind

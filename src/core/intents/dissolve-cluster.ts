import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'typedName'],
  additionalProperties: false,
  properties: { systemId: idSchema, typedName: { type: 'string', maxLength: 255 } },
} as const
export type DissolveClusterIntent = FromSchema<typeof schema>

export const dissolveClusterIntent = {
  kind: 'dissolve-cluster',
  title: 'Dissolve a cluster',
  verb: 'Dissolve',
  place: '/build/systems/{systemId}',
  form: {
    fields: [{ field: 'typedName', label: 'Name of the cluster', as: 'typed name' }],
  },
  intentSchema: schema,
} as const satisfies IntentKind

import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'poolId'],
  additionalProperties: false,
  properties: {
    systemId: idOrBlankSchema,
    poolId: idOrBlankSchema,
  },
} as const
export type RemovePoolIntent = FromSchema<typeof schema>

export const removePoolIntent = {
  kind: 'remove-pool',
  title: 'Remove a pool',
  verb: 'Remove',
  place: '/build/pools?sel={poolId}',
  form: {
    lead: 'Only an empty pool can be removed. Its drives are then free for another.',
    fields: [],
  },
  intentSchema: schema,
} as const satisfies IntentKind

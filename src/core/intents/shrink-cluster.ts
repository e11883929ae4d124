import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'poolId', 'driveIds', 'ratePercent'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    poolId: idSchema,
    /** Drives that leave; a cache drive takes its bank with it. */
    driveIds: { type: 'array', maxItems: 10_000, items: idSchema },
    ratePercent: { type: 'number', minimum: 5, maximum: 100 },
  },
} as const
export type ShrinkClusterIntent = FromSchema<typeof schema>

export const shrinkClusterIntent = {
  kind: 'shrink-cluster',
  title: 'Take nodes, banks or drives out of a cluster',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  intentSchema: schema,
} as const satisfies IntentKind

import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'poolId', 'driveIds', 'roles', 'ratePercent'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    poolId: idSchema,
    driveIds: { type: 'array', maxItems: 10_000, items: idSchema },
    roles: { type: 'object', additionalProperties: { enum: ['cache', 'capacity'] } },
    /** Of drives and links that the moving may take. */
    ratePercent: { type: 'number', minimum: 5, maximum: 100 },
  },
} as const
export type GrowClusterIntent = Omit<FromSchema<typeof schema>, 'roles'> & {
  readonly roles: Readonly<Record<string, 'cache' | 'capacity'>>
}

export const growClusterIntent = {
  kind: 'grow-cluster',
  title: 'Add nodes, banks or drives to a cluster',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  intentSchema: schema,
} as const satisfies IntentKind

import type { FromSchema } from 'json-schema-to-ts'
import { failureDomainSchema, idSchema, spreadSchemeSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: [
    'systemId',
    'name',
    'driveIds',
    'roles',
    'domain',
    'scheme',
    'keepsRebuildReserve',
    'snapshotSharePercent',
  ],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    name: { type: 'string', maxLength: 255 },
    driveIds: { type: 'array', maxItems: 10_000, items: idSchema },
    /** Roles that differ from the suggested ones, by drive. */
    roles: { type: 'object', maxProperties: 10_000, additionalProperties: { enum: ['cache', 'capacity'] } },
    domain: failureDomainSchema,
    scheme: spreadSchemeSchema,
    keepsRebuildReserve: { type: 'boolean' },
    snapshotSharePercent: { type: 'number', minimum: 0, maximum: 50 },
  },
} as const
export type FormClusterIntent = Omit<FromSchema<typeof schema>, 'roles'> & {
  readonly roles: Readonly<Record<string, 'cache' | 'capacity'>>
}

export const formClusterIntent = {
  kind: 'form-cluster',
  title: 'Form a cluster',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  intentSchema: schema,
} as const satisfies IntentKind

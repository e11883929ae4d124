import type { FromSchema } from 'json-schema-to-ts'
import { failureDomainSchema, spreadSchemeSchema } from '@/core/estate'

const id = { type: 'string', format: 'uuid' } as const

export const intentSchema = {
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
    systemId: id,
    name: { type: 'string', maxLength: 255 },
    driveIds: { type: 'array', maxItems: 10_000, items: id },
    /** Roles that differ from the suggested ones, by drive. */
    roles: { type: 'object', maxProperties: 10_000, additionalProperties: { enum: ['cache', 'capacity'] } },
    domain: failureDomainSchema,
    scheme: spreadSchemeSchema,
    keepsRebuildReserve: { type: 'boolean' },
    snapshotSharePercent: { type: 'number', minimum: 0, maximum: 50 },
  },
} as const
export type Intent = Omit<FromSchema<typeof intentSchema>, 'roles'> & {
  readonly roles: Readonly<Record<string, 'cache' | 'capacity'>>
}

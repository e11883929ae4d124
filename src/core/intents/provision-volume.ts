import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

/** `size` is text with its unit, as an administrator or a script writes it: `4 GiB`, `1.5 TB`. An empty host group maps to nobody. */
const schema = {
  type: 'object',
  required: ['name', 'purpose', 'size', 'poolId', 'isThin', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    name: { type: 'string', maxLength: 255 },
    purpose: { type: 'string', maxLength: 60 },
    size: { type: 'string', maxLength: 80 },
    poolId: idOrBlankSchema,
    isThin: { type: 'boolean' },
    hostGroupId: idOrBlankSchema,
  },
} as const
export type ProvisionVolumeIntent = FromSchema<typeof schema>

export const provisionVolumeIntent = {
  kind: 'provision-volume',
  title: 'Provision a volume',
  verb: 'Carry out',
  place: '/provision',
  intentSchema: schema,
} as const satisfies IntentKind

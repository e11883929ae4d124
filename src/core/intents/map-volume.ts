import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['volumeId', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    hostGroupId: idOrBlankSchema,
  },
} as const
export type MapVolumeIntent = FromSchema<typeof schema>

export const mapVolumeIntent = {
  kind: 'map-volume',
  title: 'Map a volume',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Map', when: { state: 'in use' } },
  form: {
    fields: [{ field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups' }],
  },
  intentSchema: schema,
} as const satisfies IntentKind

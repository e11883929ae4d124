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
export type UnmapVolumeIntent = FromSchema<typeof schema>

export const unmapVolumeIntent = {
  kind: 'unmap-volume',
  title: 'Unmap a volume',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Unmap', when: { state: 'in use', isMapped: true } },
  form: {
    fields: [{ field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups that see it' }],
  },
  intentSchema: schema,
} as const satisfies IntentKind

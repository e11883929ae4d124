import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['volumeId', 'groupNames'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    groupNames: { type: 'array', maxItems: 64, items: { type: 'string', maxLength: 255 } },
  },
} as const
export type BringBackVolumeIntent = FromSchema<typeof schema>

export const bringBackVolumeIntent = {
  kind: 'bring-back-volume',
  title: 'Bring back a volume',
  verb: 'Bring back',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Bring back', when: { state: 'holding' } },
  form: {
    fields: [
      { field: 'groupNames', label: 'Groups that shall see it again', as: 'some of', choices: 'names of host groups' },
    ],
  },
  intentSchema: schema,
} as const satisfies IntentKind

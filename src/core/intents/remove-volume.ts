import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['volumeId', 'confirmedName'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    confirmedName: { type: 'string', maxLength: 255 },
  },
} as const
export type RemoveVolumeIntent = FromSchema<typeof schema>

export const removeVolumeIntent = {
  kind: 'remove-volume',
  title: 'Remove a volume',
  verb: 'Remove',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Remove', when: { state: 'in use' } },
  form: {
    fields: [{ field: 'confirmedName', label: 'Its name, to say that you mean this one', as: 'typed name' }],
  },
  intentSchema: schema,
} as const satisfies IntentKind

import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['volumeId', 'size'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, size: { type: 'string', maxLength: 80 } },
} as const
export type ExpandVolumeIntent = FromSchema<typeof schema>

export const expandVolumeIntent = {
  kind: 'expand-volume',
  title: 'Expand a volume',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Expand', when: { state: 'in use' } },
  form: {
    fields: [
      { field: 'size', label: 'New size', hint: 'With its unit, such as 2 TiB; more than it has now.', as: 'size' },
    ],
  },
  intentSchema: schema,
} as const satisfies IntentKind

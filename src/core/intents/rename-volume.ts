import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['volumeId', 'name'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, name: { type: 'string', maxLength: 255 } },
} as const
export type RenameVolumeIntent = FromSchema<typeof schema>

export const renameVolumeIntent = {
  kind: 'rename-volume',
  title: 'Rename a volume',
  verb: 'Rename',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Rename', when: { state: 'in use' } },
  form: { fields: [{ field: 'name', label: 'New name', hint: 'Letters, digits, . _ -', as: 'text' }] },
  intentSchema: schema,
} as const satisfies IntentKind

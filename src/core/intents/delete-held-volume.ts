import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['volumeId'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema },
} as const
export type DeleteHeldVolumeIntent = FromSchema<typeof schema>

export const deleteHeldVolumeIntent = {
  kind: 'delete-held-volume',
  title: 'Delete a held volume',
  verb: 'Carry out',
  intentSchema: schema,
} as const satisfies IntentKind

import type { FromSchema } from 'json-schema-to-ts'
import { idSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId', 'driveId', 'lastFour', 'isWhole'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    driveId: idSchema,
    /** The last four characters of the serial number, read off the drive. */
    lastFour: { type: 'string', maxLength: 20 },
    isWhole: { type: 'boolean' },
  },
} as const
export type EraseDriveIntent = FromSchema<typeof schema>

export const eraseDriveIntent = {
  kind: 'erase-drive',
  title: 'Erase a drive',
  verb: 'Erase',
  place: '/build/drives?drive={driveId}',
  intentSchema: schema,
} as const satisfies IntentKind

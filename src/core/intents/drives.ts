import { idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const eraseDriveSchema = {
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
export type EraseDriveIntent = IntentOf<typeof eraseDriveSchema>

export const eraseDriveIntent = {
  kind: 'erase-drive',
  title: 'Erase a drive',
  begins: '/build/drives?state=foreign',
  verb: 'Erase',
  place: '/build/drives?drive={driveId}',
  form: {
    fields: [
      {
        field: 'isWhole',
        label: 'How much',
        as: 'side by side',
        options: [
          { value: false, words: 'tables and heads' },
          { value: true, words: 'every sector' },
        ],
      },
      {
        field: 'lastFour',
        label: 'Last four characters of its serial number',
        hint: 'As they stand on its label and on the bay.',
        as: 'identifier',
      },
    ],
  },
  intentSchema: eraseDriveSchema,
} as const satisfies IntentKind

const setLocateLightSchema = {
  type: 'object',
  required: ['systemId', 'driveIds', 'isOn'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    driveIds: { type: 'array', maxItems: 1000, items: idSchema },
    isOn: { type: 'boolean' },
  },
} as const
export type SetLocateLightIntent = IntentOf<typeof setLocateLightSchema>

export const setLocateLightIntent = {
  kind: 'set-locate-light',
  title: 'Switch the locate light of drives',
  verb: 'Carry out',
  place: '/build/drives?drive={driveIds}',
  form: {
    fields: [
      {
        field: 'isOn',
        label: 'Light',
        as: 'side by side',
        options: [
          { value: true, words: 'on' },
          { value: false, words: 'off' },
        ],
      },
    ],
  },
  intentSchema: setLocateLightSchema,
} as const satisfies IntentKind

/** Single drives. */
export const driveIntents: readonly IntentKind[] = [eraseDriveIntent, setLocateLightIntent]

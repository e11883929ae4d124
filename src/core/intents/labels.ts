import { idOrBlankSchema, idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const application = { type: 'string', maxLength: 60 } as const

const setApplicationSchema = {
  type: 'object',
  required: ['volumeIds', 'application'],
  additionalProperties: false,
  properties: { volumeIds: { type: 'array', maxItems: 1000, uniqueItems: true, items: idSchema }, application },
} as const
export type SetApplicationIntent = IntentOf<typeof setApplicationSchema>

export const setApplicationIntent = {
  kind: 'set-application',
  title: 'Say what volumes serve',
  verb: 'Carry out',
  place: '/provision',
  begins: '/provision',
  form: {
    lead: 'Capacity is told by application, and a pool may be kept for one.',
    fields: [
      {
        field: 'application',
        label: 'Application',
        hint: 'Left empty, they serve none that is named.',
        as: 'text',
        choices: 'names of applications',
      },
    ],
  },
  intentSchema: setApplicationSchema,
} as const satisfies IntentKind

const imageSchema = {
  type: 'object',
  required: ['volumeId'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema },
} as const
export type ImageIntent = IntentOf<typeof imageSchema>

export const keepAsImageIntent = {
  kind: 'keep-as-image',
  title: 'Keep a volume as an image',
  verb: 'Keep it',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Keep as image', when: { state: 'in use', isImage: false, isMapped: false }, isRare: true },
  form: { lead: 'Clones are made of it. Nobody writes it: it can be mapped to no host while it is one.', fields: [] },
  intentSchema: imageSchema,
} as const satisfies IntentKind

export const releaseImageIntent = {
  kind: 'release-image',
  title: 'Make a volume of an image',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'No longer an image', when: { state: 'in use', isImage: true }, isRare: true },
  form: { lead: 'It can be mapped and written again; its clones stay as they are.', fields: [] },
  // Of its own: what is compiled for the browser is told apart by the schema itself.
  intentSchema: { ...imageSchema },
} as const satisfies IntentKind

/** What volumes are to people: whom they serve, and whether they are only copied from. */
export const labelIntents: readonly IntentKind[] = [setApplicationIntent, keepAsImageIntent, releaseImageIntent]

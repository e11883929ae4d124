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

const labelShareSchema = {
  type: 'object',
  required: ['shareId', 'labels', 'warnPercent'],
  additionalProperties: false,
  properties: {
    shareId: idOrBlankSchema,
    /** A line each. */
    labels: { type: 'string', maxLength: 2000 },
    warnPercent: { type: ['integer', 'null'], minimum: 1, maximum: 99 },
  },
} as const
export type LabelShareIntent = IntentOf<typeof labelShareSchema>

export const labelShareIntent = {
  kind: 'label-share',
  title: 'Label a share, and say when to warn of its fill',
  verb: 'Keep it',
  place: '/provision/shares?sel={shareId}',
  alters: 'shareId',
  offer: { words: 'Labels, warning', when: {} },
  form: {
    fields: [
      { field: 'labels', label: 'Labels', hint: 'A line each; what people call it by besides its name.', as: 'lines' },
      {
        field: 'warnPercent',
        label: 'Warn from so full on, %',
        hint: 'Left empty, from 90 on, as of all shares.',
        as: 'number or none',
      },
    ],
  },
  intentSchema: labelShareSchema,
} as const satisfies IntentKind

/** What volumes and shares are to people: whom they serve, what they are called by, and whether they are only copied from. */
export const labelIntents: readonly IntentKind[] = [
  labelShareIntent,
  setApplicationIntent,
  keepAsImageIntent,
  releaseImageIntent,
]

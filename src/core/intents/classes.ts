import { idOrBlankSchema, idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const count = { type: ['integer', 'null'], minimum: 0, maximum: 1000 } as const

const hour = { type: ['number', 'null'], minimum: 0, maximum: 24 } as const

const defineClassSchema = {
  type: 'object',
  required: [
    'classId',
    'name',
    'lossesSurvived',
    'media',
    'latencyMilliseconds',
    'headroomPercent',
    'snapshotRule',
    'timeZone',
    'keepLast',
    'hourly',
    'daily',
    'weekly',
    'monthly',
    'yearly',
    'holdingDays',
  ],
  additionalProperties: false,
  properties: {
    classId: idOrBlankSchema,
    name: { type: 'string', maxLength: 255 },
    lossesSurvived: { type: ['integer', 'null'], minimum: 0, maximum: 4 },
    media: { enum: ['any', 'SSD', 'HDD'] },
    latencyMilliseconds: { type: ['integer', 'null'], minimum: 1, maximum: 10_000 },
    headroomPercent: { type: ['integer', 'null'], minimum: 0, maximum: 90 },
    snapshotRule: { type: 'string', maxLength: 400 },
    timeZone: { type: 'string', maxLength: 60 },
    keepLast: count,
    hourly: count,
    daily: count,
    weekly: count,
    monthly: count,
    yearly: count,
    holdingDays: { type: ['integer', 'null'], minimum: 1, maximum: 365 },
    /** Hours of the day in its zone, over midnight where the first is the later. */
    quietFrom: hour,
    quietTo: hour,
  },
} as const
export type DefineClassIntent = IntentOf<typeof defineClassSchema>

const number = (field: string, label: string, isBeside = false) =>
  ({ field, label, as: 'number or none', ...(isBeside ? { isBeside } : {}) }) as const

export const defineClassIntent = {
  kind: 'define-class',
  title: 'Define a service class',
  verb: 'Define',
  place: '/provision/classes',
  form: {
    lead: 'What is left empty is not promised.',
    fields: [
      { field: 'name', label: 'Name', hint: 'As people say it: Nothing lost.', as: 'text' },
      number('lossesSurvived', 'Survives losses'),
      {
        field: 'media',
        label: 'On',
        as: 'side by side',
        options: [
          { value: 'any', words: 'any media' },
          { value: 'SSD', words: 'SSD' },
          { value: 'HDD', words: 'HDD' },
        ],
      },
      { ...number('latencyMilliseconds', '95 of 100 minutes within, ms') },
      number('headroomPercent', 'Of the pool stays free, %', true),
      {
        field: 'snapshotRule',
        label: 'Snapshots by',
        hint: 'A rule of RFC 5545: FREQ=HOURLY, or FREQ=DAILY;BYHOUR=6,18. Empty takes none.',
        as: 'identifier',
      },
      { field: 'timeZone', label: 'In the time zone', hint: 'Such as Europe/Lisbon.', as: 'text' },
      number('quietFrom', 'None from the hour of'),
      number('quietTo', 'to', true),
      number('keepLast', 'Keep the last'),
      number('hourly', 'hourly', true),
      number('daily', 'daily', true),
      number('weekly', 'weekly'),
      number('monthly', 'monthly', true),
      number('yearly', 'yearly', true),
      number('holdingDays', 'Removed volumes can be brought back for, days'),
    ],
  },
  intentSchema: defineClassSchema,
} as const satisfies IntentKind

const removeClassSchema = {
  type: 'object',
  required: ['classId'],
  additionalProperties: false,
  properties: { classId: idOrBlankSchema },
} as const
export type RemoveClassIntent = IntentOf<typeof removeClassSchema>

export const removeClassIntent = {
  kind: 'remove-class',
  title: 'Remove a service class',
  verb: 'Remove',
  place: '/provision/classes?sel={classId}',
  offer: { words: 'Remove', when: {} },
  form: { lead: 'Volumes under it are promised nothing afterwards.', fields: [] },
  intentSchema: removeClassSchema,
} as const satisfies IntentKind

const setVolumeClassSchema = {
  type: 'object',
  required: ['volumeIds', 'classId'],
  additionalProperties: false,
  properties: {
    volumeIds: { type: 'array', maxItems: 1000, uniqueItems: true, items: idSchema },
    classId: idOrBlankSchema,
  },
} as const
export type SetVolumeClassIntent = IntentOf<typeof setVolumeClassSchema>

export const setVolumeClassIntent = {
  kind: 'set-volume-class',
  title: 'Put volumes under a service class',
  verb: 'Carry out',
  place: '/provision',
  begins: '/provision',
  form: {
    lead: 'Its schedule and retention hold for them from then on.',
    fields: [
      {
        field: 'classId',
        label: 'Service class',
        hint: 'None promises them nothing.',
        as: 'one of',
        choices: 'service classes',
      },
    ],
  },
  intentSchema: setVolumeClassSchema,
} as const satisfies IntentKind

/** Sets of promises, and what stands under them. */
export const classIntents: readonly IntentKind[] = [defineClassIntent, removeClassIntent, setVolumeClassIntent]

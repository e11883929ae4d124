import { idOrBlankSchema, idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'
import { number, scheduleFields, scheduleProperties, scheduleRequired } from './schedules'

const defineClassSchema = {
  type: 'object',
  required: [
    'classId',
    'name',
    'lossesSurvived',
    'media',
    'latencyMilliseconds',
    'headroomPercent',
    ...scheduleRequired,
    'holdingDays',
  ],
  additionalProperties: false,
  properties: {
    classId: idOrBlankSchema,
    name: { type: 'string', maxLength: 255 },
    lossesSurvived: { type: ['integer', 'null'], minimum: 0, maximum: 4 },
    media: { enum: ['any', 'SSD', 'HDD'] },
    latencyMilliseconds: { type: ['number', 'null'], minimum: 0.05, maximum: 10_000 },
    headroomPercent: { type: ['integer', 'null'], minimum: 0, maximum: 90 },
    copyWithinMinutes: { type: ['integer', 'null'], minimum: 0, maximum: 10_080 },
    /** Blank for nobody. */
    defaultGroupId: idOrBlankSchema,
    ...scheduleProperties,
    holdingDays: { type: ['integer', 'null'], minimum: 1, maximum: 365 },
  },
} as const
export type DefineClassIntent = IntentOf<typeof defineClassSchema>

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
        ...number('copyWithinMinutes', 'A copy on another system is at most so old, minutes'),
        hint: '0 loses nothing: it is mirrored.',
      },
      {
        field: 'defaultGroupId',
        label: 'Seen by, where nothing else is said',
        as: 'one of',
        choices: 'host groups or none',
      },
      ...scheduleFields(),
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

const scheduleVolumesSchema = {
  type: 'object',
  required: ['volumeIds', 'isOwn', ...scheduleRequired],
  additionalProperties: false,
  properties: {
    volumeIds: { type: 'array', maxItems: 1000, uniqueItems: true, items: idSchema },
    /** Whether they have one of their own; else they go by their classes. */
    isOwn: { type: 'boolean' },
    ...scheduleProperties,
  },
} as const
export type ScheduleVolumesIntent = IntentOf<typeof scheduleVolumesSchema>

export const scheduleVolumesIntent = {
  kind: 'schedule-volumes',
  title: 'Schedule snapshots of volumes',
  verb: 'Set it',
  place: '/provision',
  begins: '/provision',
  start: { isOwn: true },
  form: {
    lead: 'In the place of what their classes say.',
    fields: [
      {
        field: 'isOwn',
        label: 'Snapshots',
        as: 'side by side',
        options: [
          { value: true, words: 'by a schedule of their own' },
          { value: false, words: 'by their class' },
        ],
      },
      ...scheduleFields({ field: 'isOwn', is: 'true' }),
    ],
  },
  intentSchema: scheduleVolumesSchema,
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
export const classIntents: readonly IntentKind[] = [
  defineClassIntent,
  removeClassIntent,
  scheduleVolumesIntent,
  setVolumeClassIntent,
]

import type { FormField } from './IntentKind'

const count = { type: ['integer', 'null'], minimum: 0, maximum: 1000 } as const
const hour = { type: ['number', 'null'], minimum: 0, maximum: 24 } as const

/** A schedule of snapshots and how long they are kept, as drafts ask for it. */
export const scheduleProperties = {
  snapshotRule: { type: 'string', maxLength: 400 },
  timeZone: { type: 'string', maxLength: 60 },
  keepLast: count,
  hourly: count,
  daily: count,
  weekly: count,
  monthly: count,
  yearly: count,
  /** Hours of the day in its zone, over midnight where the first is the later. */
  quietFrom: hour,
  quietTo: hour,
} as const
export const scheduleRequired = [
  'snapshotRule',
  'timeZone',
  'keepLast',
  'hourly',
  'daily',
  'weekly',
  'monthly',
  'yearly',
] as const

export const number = (field: string, label: string, isBeside = false): FormField => ({
  ...{ field, label, as: 'number or none' },
  ...(isBeside ? { isBeside } : {}),
})

/** @param onlyWhile another field is so */
export const scheduleFields = (onlyWhile?: FormField['onlyWhile']): readonly FormField[] =>
  fields.map(each => (onlyWhile === undefined ? each : { ...each, onlyWhile }))

const fields: readonly FormField[] = [
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
]

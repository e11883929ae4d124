import { idOrBlankSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const application = { type: 'string', maxLength: 60 } as const

/** `size` is text with its unit, as an administrator or a script writes it: `4 GiB`, `1.5 TB`. An empty host group maps to nobody. */
const provisionVolumeSchema = {
  type: 'object',
  required: ['name', 'purpose', 'size', 'poolId', 'isThin', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    name: { type: 'string', maxLength: 255 },
    purpose: { type: 'string', maxLength: 60 },
    size: { type: 'string', maxLength: 80 },
    poolId: idOrBlankSchema,
    isThin: { type: 'boolean' },
    hostGroupId: idOrBlankSchema,
    /** Picks the pool where none is chosen; what it promises holds for the volume from then on. */
    classId: idOrBlankSchema,
    application,
    /** Of what is written of it, what is overwritten in a day. */
    changePercent: { type: ['number', 'null'], minimum: 0, maximum: 1000 },
  },
} as const
export type ProvisionVolumeIntent = IntentOf<typeof provisionVolumeSchema>

export const provisionVolumeIntent = {
  kind: 'provision-volume',
  title: 'Provision a volume',
  verb: 'Carry out',
  place: '/provision',
  form: {
    fields: [
      {
        field: 'classId',
        label: 'Service class',
        hint: 'What shall be promised of it; it finds the pool.',
        as: 'one of',
        choices: 'service classes',
      },
      {
        field: 'hostGroupId',
        label: 'Host group',
        hint: 'Who shall see it; none maps it to nobody.',
        as: 'one of',
        choices: 'host groups',
        isBeside: true,
      },
      {
        field: 'application',
        label: 'Application',
        hint: 'What it serves, as people call it.',
        as: 'text',
        choices: 'names of applications',
      },
      {
        field: 'purpose',
        label: 'Purpose',
        hint: 'A word for the name, such as data or log.',
        as: 'text',
      },
      {
        field: 'name',
        label: 'Name',
        hint: 'By the naming pattern of the estate; any other name may be given.',
        as: 'suggested name',
      },
      { field: 'size', label: 'Size', hint: 'With its unit: 500 GiB, 2 TB.', as: 'size', isBeside: true },
      {
        field: 'changePercent',
        label: 'Changes a day, %',
        hint: 'Of what is written; by it the room for its snapshots is told. 2 where nothing is said.',
        as: 'number or none',
        onlyWhile: { field: 'classId', is: 'filled' },
      },
      {
        field: 'poolId',
        label: 'Pool',
        hint: 'None leaves it to the class: the place that scores best.',
        as: 'one of',
        choices: 'pools',
      },
      {
        field: 'isThin',
        label: 'Space',
        as: 'side by side',
        options: [
          { value: true, words: 'thin: taken as it is written' },
          { value: false, words: 'thick: taken at once' },
        ],
      },
    ],
  },
  intentSchema: provisionVolumeSchema,
} as const satisfies IntentKind

const provisionVolumesSchema = {
  type: 'object',
  required: ['list', 'classId', 'poolId', 'isThin', 'isTogether', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    list: { type: 'string', maxLength: 100_000 },
    classId: idOrBlankSchema,
    poolId: idOrBlankSchema,
    isThin: { type: 'boolean' },
    /** All in one pool: what belongs to one application. */
    isTogether: { type: 'boolean' },
    hostGroupId: idOrBlankSchema,
    /** Of the consistency group that they form; blank for none. */
    consistencyGroup: { type: 'string', maxLength: 255 },
    application,
  },
} as const
export type ProvisionVolumesIntent = IntentOf<typeof provisionVolumesSchema>

export const provisionVolumesIntent = {
  kind: 'provision-volumes',
  title: 'Provision several volumes',
  verb: 'Carry out',
  place: '/provision',
  form: {
    lead: 'A line each: a name and a size. A range stands for many: desk-{01..60}, 80 GiB.',
    fields: [
      { field: 'list', label: 'Volumes', hint: 'Lines of CSV, as a table gives them.', as: 'lines' },
      {
        field: 'classId',
        label: 'Service class',
        hint: 'It finds the pool of each.',
        as: 'one of',
        choices: 'service classes',
      },
      {
        field: 'hostGroupId',
        label: 'Host group',
        hint: 'Who shall see all of them.',
        as: 'one of',
        choices: 'host groups or none',
        isBeside: true,
      },
      { field: 'poolId', label: 'Pool', hint: 'None leaves it to the class.', as: 'one of', choices: 'pools or none' },
      {
        field: 'isThin',
        label: 'Space',
        as: 'side by side',
        options: [
          { value: true, words: 'thin' },
          { value: false, words: 'thick' },
        ],
        isBeside: true,
      },
      {
        field: 'application',
        label: 'Application',
        hint: 'What they serve, as people call it.',
        as: 'text',
        choices: 'names of applications',
      },
      { field: 'isTogether', label: 'All in one pool, as what belongs to one application', as: 'tick' },
      {
        field: 'consistencyGroup',
        label: 'Consistency group',
        hint: 'A name where their snapshots shall be of one instant; none leaves each by itself.',
        as: 'text',
      },
    ],
  },
  intentSchema: provisionVolumesSchema,
} as const satisfies IntentKind

/** Volumes that are made. */
export const provisioningIntents: readonly IntentKind[] = [provisionVolumeIntent, provisionVolumesIntent]

import { idOrBlankSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'
import { mappingIntents } from './mappings'

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

const expandVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'size'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    size: { type: 'string', maxLength: 80 },
    /** Else what hosts have mounted of it grows with it. */
    leavesFileSystem: { type: 'boolean' },
  },
} as const
export type ExpandVolumeIntent = IntentOf<typeof expandVolumeSchema>

export const expandVolumeIntent = {
  kind: 'expand-volume',
  title: 'Expand a volume',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Expand', when: { state: 'in use' } },
  form: {
    fields: [
      { field: 'size', label: 'New size', hint: 'With its unit, such as 2 TiB; more than it has now.', as: 'size' },
      { field: 'leavesFileSystem', label: 'Leave the file system on its hosts as it is', as: 'tick' },
    ],
  },
  intentSchema: expandVolumeSchema,
} as const satisfies IntentKind

const renameVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'name'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, name: { type: 'string', maxLength: 255 } },
} as const
export type RenameVolumeIntent = IntentOf<typeof renameVolumeSchema>

export const renameVolumeIntent = {
  kind: 'rename-volume',
  title: 'Rename a volume',
  verb: 'Rename',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Rename', when: { state: 'in use' } },
  form: { fields: [{ field: 'name', label: 'New name', hint: 'Letters, digits, . _ -', as: 'text' }] },
  intentSchema: renameVolumeSchema,
} as const satisfies IntentKind

const moveVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'poolId', 'classId', 'ratePercent'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    /** Blank for the best of its system under the class. */
    poolId: idOrBlankSchema,
    /** What it is to be under afterwards; blank for the class that it is under. */
    classId: idOrBlankSchema,
    ratePercent: { type: 'number', minimum: 1, maximum: 90 },
  },
} as const
export type MoveVolumeIntent = IntentOf<typeof moveVolumeSchema>

export const moveVolumeIntent = {
  kind: 'move-volume',
  title: 'Move a volume to another pool',
  verb: 'Move it',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Move', when: { state: 'in use', isClone: false } },
  form: {
    lead: 'With its snapshots, while its hosts read and write it.',
    fields: [
      {
        field: 'poolId',
        label: 'To',
        hint: 'None leaves it to the class: the other pool that scores best.',
        as: 'one of',
        choices: 'pools of its system',
      },
      { field: 'classId', label: 'Service class afterwards', as: 'one of', choices: 'service classes', isBeside: true },
      {
        field: 'ratePercent',
        label: 'Rate of moving',
        hint: '% of the drives of both pools, where the system takes one; hosts have the rest.',
        as: 'number',
      },
    ],
  },
  intentSchema: moveVolumeSchema,
} as const satisfies IntentKind

const removeVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'confirmedName'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    confirmedName: { type: 'string', maxLength: 255 },
  },
} as const
export type RemoveVolumeIntent = IntentOf<typeof removeVolumeSchema>

export const removeVolumeIntent = {
  kind: 'remove-volume',
  title: 'Remove a volume',
  verb: 'Remove',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Remove', when: { state: 'in use' } },
  form: {
    fields: [{ field: 'confirmedName', label: 'Its name, to say that you mean this one', as: 'typed name' }],
  },
  intentSchema: removeVolumeSchema,
} as const satisfies IntentKind

const bringBackVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'groupNames'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    groupNames: { type: 'array', maxItems: 64, items: { type: 'string', maxLength: 255 } },
  },
} as const
export type BringBackVolumeIntent = IntentOf<typeof bringBackVolumeSchema>

export const bringBackVolumeIntent = {
  kind: 'bring-back-volume',
  title: 'Bring back a volume',
  verb: 'Bring back',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Bring back', when: { state: 'holding' } },
  form: {
    fields: [
      { field: 'groupNames', label: 'Groups that shall see it again', as: 'some of', choices: 'names of host groups' },
    ],
  },
  intentSchema: bringBackVolumeSchema,
} as const satisfies IntentKind

const deleteHeldVolumeSchema = {
  type: 'object',
  required: ['volumeId'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    /** Its name, where somebody means to erase it before its time in holding is over. */
    confirmedName: { type: 'string', maxLength: 255 },
  },
} as const
export type DeleteHeldVolumeIntent = IntentOf<typeof deleteHeldVolumeSchema>

export const deleteHeldVolumeIntent = {
  kind: 'delete-held-volume',
  title: 'Erase a volume in holding',
  verb: 'Erase it',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Erase now', when: { state: 'holding' } },
  form: {
    lead: 'By itself it goes when its time in holding is over. Nothing brings it back after this.',
    fields: [{ field: 'confirmedName', label: 'Its name, to say that you mean this one', as: 'typed name' }],
  },
  intentSchema: deleteHeldVolumeSchema,
} as const satisfies IntentKind

/** Volumes and who sees them. */
export const volumeIntents: readonly IntentKind[] = [
  provisionVolumeIntent,
  provisionVolumesIntent,
  ...mappingIntents,
  expandVolumeIntent,
  renameVolumeIntent,
  moveVolumeIntent,
  removeVolumeIntent,
  bringBackVolumeIntent,
  deleteHeldVolumeIntent,
]

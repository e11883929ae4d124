import { idOrBlankSchema, idSchema, type VolumeLimits } from '../estate'
import { exactBytes } from '../units'
import type { FormField, IntentKind, IntentOf } from './IntentKind'
import { labelIntents } from './labels'
import { mappingIntents } from './mappings'
import { mirrorIntents } from './mirrors'
import { provisioningIntents } from './provisioning'

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
  offer: { words: 'Rename', when: { state: 'in use' }, isRare: true },
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

const convertVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'isThin'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, isThin: { type: 'boolean' } },
} as const
export type ConvertVolumeIntent = IntentOf<typeof convertVolumeSchema>

export const convertVolumeIntent = {
  kind: 'convert-volume',
  title: 'Make a volume thin or thick',
  verb: 'Convert it',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Convert', when: { state: 'in use', isClone: false }, isRare: true },
  form: {
    lead: 'Its hosts read and write it meanwhile, and notice nothing.',
    fields: [
      {
        field: 'isThin',
        label: 'Takes from its pool',
        as: 'side by side',
        options: [
          { value: true, words: 'what is written of it' },
          { value: false, words: 'all of its size' },
        ],
      },
    ],
  },
  intentSchema: convertVolumeSchema,
} as const satisfies IntentKind

const limitProperties = {
  /** A second; none for no limit. */
  mostRequests: { type: ['number', 'null'], minimum: 0, maximum: 1e9 },
  /** With its unit, a second; blank for no limit. */
  mostThroughput: { type: 'string', maxLength: 80 },
} as const
const limitFields: readonly FormField[] = [
  { field: 'mostRequests', label: 'Requests a second', hint: 'None for no limit.', as: 'number or none' },
  {
    field: 'mostThroughput',
    label: 'Throughput a second',
    hint: 'With its unit: 200 MiB. Nothing for no limit.',
    as: 'size',
    isBeside: true,
  },
]

const limitVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'mostRequests', 'mostThroughput'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, ...limitProperties },
} as const
export type LimitVolumeIntent = IntentOf<typeof limitVolumeSchema>

export const limitVolumeIntent = {
  kind: 'limit-volume',
  title: 'Limit what a volume may be asked for',
  verb: 'Limit it',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Limit', when: { state: 'in use', takesLimits: true }, isRare: true },
  form: {
    lead: 'Its hosts wait where they ask for more; the others of its pool are answered sooner.',
    fields: limitFields,
  },
  intentSchema: limitVolumeSchema,
} as const satisfies IntentKind

const limitVolumesSchema = {
  type: 'object',
  required: ['volumeIds', 'mostRequests', 'mostThroughput'],
  additionalProperties: false,
  properties: {
    volumeIds: { type: 'array', maxItems: 64, uniqueItems: true, items: idSchema },
    ...limitProperties,
  },
} as const
export type LimitVolumesIntent = IntentOf<typeof limitVolumesSchema>

export const limitVolumesIntent = {
  kind: 'limit-volumes',
  title: 'Limit what volumes may be asked for',
  verb: 'Limit them',
  place: '/provision',
  begins: '/provision',
  form: {
    lead: 'The limit is for each of them by itself. Their hosts wait where they ask for more; the others of their pools are answered sooner.',
    fields: limitFields,
  },
  intentSchema: limitVolumesSchema,
} as const satisfies IntentKind

/** Limits that stand, as a draft about them begins. */
export const limitWords = (limits: VolumeLimits | null): Omit<LimitVolumeIntent, 'volumeId'> => ({
  mostRequests: limits?.requestsPerSecond ?? null,
  mostThroughput: limits?.bytesPerSecond == null ? '' : exactBytes(BigInt(Math.round(limits.bytesPerSecond))),
})

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
  ...provisioningIntents,
  ...mappingIntents,
  expandVolumeIntent,
  renameVolumeIntent,
  moveVolumeIntent,
  ...mirrorIntents,
  convertVolumeIntent,
  limitVolumeIntent,
  limitVolumesIntent,
  ...labelIntents,
  removeVolumeIntent,
  bringBackVolumeIntent,
  deleteHeldVolumeIntent,
]

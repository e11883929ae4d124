import { idOrBlankSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const name = { type: 'string', maxLength: 255 } as const
const place = '/provision/volumes/{volumeId}'

const cloneVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotId', 'name', 'poolId', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    snapshotId: idOrBlankSchema,
    name,
    poolId: idOrBlankSchema,
    hostGroupId: idOrBlankSchema,
    /** Blank for that of its source. */
    size: { type: 'string', maxLength: 80 },
  },
} as const
export type CloneVolumeIntent = IntentOf<typeof cloneVolumeSchema>

export const cloneVolumeIntent = {
  kind: 'clone-volume',
  title: 'Clone a volume',
  verb: 'Clone',
  place,
  offer: { words: 'Clone', when: { state: 'in use' } },
  form: {
    fields: [
      {
        field: 'snapshotId',
        label: 'What it was',
        hint: 'None clones what the volume is now: a snapshot is taken first.',
        as: 'one of',
        choices: 'snapshots of it',
      },
      {
        field: 'name',
        label: 'Name',
        hint: 'By the name of its source; any other name may be given.',
        as: 'suggested name',
      },
      {
        field: 'poolId',
        label: 'Pool',
        hint: 'None leaves it in the pool of its source, where it shares what neither writes; elsewhere it is copied.',
        as: 'one of',
        choices: 'pools of its system',
      },
      {
        field: 'hostGroupId',
        label: 'Host group',
        hint: 'Who shall see the clone.',
        as: 'one of',
        choices: 'host groups',
      },
      {
        field: 'size',
        label: 'Size',
        hint: 'None leaves it that of its source; a larger one is followed by growing the file system.',
        as: 'size',
      },
    ],
  },
  intentSchema: cloneVolumeSchema,
} as const satisfies IntentKind

const cloneVolumesSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotId', 'names', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    snapshotId: idOrBlankSchema,
    /** With a range that stands for as many. */
    names: name,
    hostGroupId: idOrBlankSchema,
    application: { type: 'string', maxLength: 60 },
  },
} as const
export type CloneVolumesIntent = IntentOf<typeof cloneVolumesSchema>

export const cloneVolumesIntent = {
  kind: 'clone-volumes',
  title: 'Make many clones of a volume',
  verb: 'Clone',
  place,
  offer: { words: 'Many clones', when: { state: 'in use' }, isRare: true },
  form: {
    lead: 'All of one moment, in the pool of their source. Each takes only what it writes otherwise.',
    fields: [
      { field: 'names', label: 'Names', hint: 'A range stands for many: desk-{01..60}.', as: 'text' },
      {
        field: 'snapshotId',
        label: 'What it was',
        hint: 'None clones what the volume is now: a snapshot is taken first.',
        as: 'one of',
        choices: 'snapshots of it',
      },
      {
        field: 'hostGroupId',
        label: 'Host group',
        hint: 'Who shall see all of them; none maps them to nobody yet.',
        as: 'one of',
        choices: 'host groups',
      },
      {
        field: 'application',
        label: 'Application',
        hint: 'What they serve, as people call it.',
        as: 'text',
        choices: 'names of applications',
      },
    ],
  },
  intentSchema: cloneVolumesSchema,
} as const satisfies IntentKind

const splitCloneSchema = {
  type: 'object',
  required: ['volumeId'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema },
} as const
export type SplitCloneIntent = IntentOf<typeof splitCloneSchema>

export const splitCloneIntent = {
  kind: 'split-clone',
  title: 'Split a clone from its snapshot',
  verb: 'Split',
  place,
  offer: { words: 'Split', when: { state: 'in use', isClone: true }, isRare: true },
  form: { lead: 'It is copied in full, and stands alone afterwards. Hosts go on using it meanwhile.', fields: [] },
  intentSchema: splitCloneSchema,
} as const satisfies IntentKind

/** Copies of volumes. */
export const cloneIntents: readonly IntentKind[] = [cloneVolumeIntent, cloneVolumesIntent, splitCloneIntent]

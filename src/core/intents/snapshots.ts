import { idOrBlankSchema, idSchema } from '../estate'
import { cloneIntents } from './clones'
import type { IntentKind, IntentOf } from './IntentKind'

const name = { type: 'string', maxLength: 255 } as const
const reason = { type: 'string', maxLength: 500 } as const
/** Where a volume's copies stand, and what is done with them is drafted. */
const place = '/provision/volumes/{volumeId}'

const takeSnapshotSchema = {
  type: 'object',
  required: ['volumeId', 'name', 'reason'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, name, reason },
} as const
export type TakeSnapshotIntent = IntentOf<typeof takeSnapshotSchema>

export const takeSnapshotIntent = {
  kind: 'take-snapshot',
  title: 'Take a snapshot',
  verb: 'Take it',
  place,
  offer: { words: 'Snapshot', when: { state: 'in use' } },
  form: {
    fields: [
      {
        field: 'name',
        label: 'Name',
        hint: 'The volume and the moment; any other name may be given.',
        as: 'suggested name',
      },
      { field: 'reason', label: 'What it is for', hint: 'Such as: before the upgrade of the register.', as: 'text' },
    ],
  },
  intentSchema: takeSnapshotSchema,
} as const satisfies IntentKind

const removeSnapshotsSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotIds', 'reason'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    snapshotIds: { type: 'array', maxItems: 5000, uniqueItems: true, items: idSchema },
    reason,
  },
} as const
export type RemoveSnapshotsIntent = IntentOf<typeof removeSnapshotsSchema>

export const removeSnapshotsIntent = {
  kind: 'remove-snapshots',
  title: 'Remove snapshots',
  verb: 'Remove',
  place,
  form: {
    fields: [
      {
        field: 'reason',
        label: 'Why',
        hint: 'Asked for where a promise still needs one of them.',
        as: 'text',
      },
    ],
  },
  intentSchema: removeSnapshotsSchema,
} as const satisfies IntentKind

const keepSnapshotsSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotIds'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, snapshotIds: removeSnapshotsSchema.properties.snapshotIds },
} as const
export type KeepSnapshotsIntent = IntentOf<typeof keepSnapshotsSchema>

export const keepSnapshotsIntent = {
  kind: 'keep-snapshots',
  title: 'Bring back snapshots',
  verb: 'Bring back',
  place,
  form: { lead: 'They stay, and the retention judges them again like all others.', fields: [] },
  intentSchema: keepSnapshotsSchema,
} as const satisfies IntentKind

const holdSnapshotSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotId', 'reason'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, snapshotId: idOrBlankSchema, reason },
} as const
export type HoldSnapshotIntent = IntentOf<typeof holdSnapshotSchema>

export const holdSnapshotIntent = {
  kind: 'hold-snapshot',
  title: 'Hold a snapshot',
  verb: 'Carry out',
  place,
  form: {
    lead: 'What is held stays whatever the retention says, until it is released.',
    fields: [{ field: 'reason', label: 'Why it must stay', hint: 'Left empty, it is released.', as: 'text' }],
  },
  intentSchema: holdSnapshotSchema,
} as const satisfies IntentKind

const restoreVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotId', 'confirmedName'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, snapshotId: idOrBlankSchema, confirmedName: name },
} as const
export type RestoreVolumeIntent = IntentOf<typeof restoreVolumeSchema>

export const restoreVolumeIntent = {
  kind: 'restore-volume',
  title: 'Take a volume back to a snapshot',
  verb: 'Take it back',
  place,
  form: {
    lead: 'A snapshot of what it is now is taken first, so that this can be undone.',
    fields: [
      { field: 'snapshotId', label: 'Back to', as: 'one of', choices: 'snapshots of it' },
      { field: 'confirmedName', label: 'Its name, to say that you mean this one', as: 'typed name' },
    ],
  },
  intentSchema: restoreVolumeSchema,
} as const satisfies IntentKind

const bringBackFileSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotId', 'hostId', 'path', 'to'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    /** Blank for the latest that holds the file. */
    snapshotId: idOrBlankSchema,
    hostId: idOrBlankSchema,
    path: { type: 'string', maxLength: 200 },
    /** Blank for where it was. */
    to: { type: 'string', maxLength: 200 },
  },
} as const
export type BringBackFileIntent = IntentOf<typeof bringBackFileSchema>

export const bringBackFileIntent = {
  kind: 'bring-back-file',
  title: 'Bring a file back from a snapshot',
  verb: 'Bring it back',
  place,
  offer: { words: 'File back', when: { state: 'in use', isMapped: true }, isRare: true },
  form: {
    lead: 'Its host is shown the snapshot for as long as it copies the file. What stands on the volume is not written over.',
    fields: [
      { field: 'hostId', label: 'Host', as: 'one of', choices: 'hosts that see it' },
      { field: 'path', label: 'File', hint: 'As the host names it, such as /srv/register/ledger.', as: 'text' },
      { field: 'snapshotId', label: 'As it was in', as: 'one of', choices: 'snapshots of it' },
      { field: 'to', label: 'Bring it to', hint: 'None brings it to where it was.', as: 'text' },
    ],
  },
  intentSchema: bringBackFileSchema,
} as const satisfies IntentKind

const showSnapshotSchema = {
  type: 'object',
  required: ['volumeId', 'snapshotId', 'hostGroupId'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, snapshotId: idOrBlankSchema, hostGroupId: idOrBlankSchema },
} as const
export type ShowSnapshotIntent = IntentOf<typeof showSnapshotSchema>

export const showSnapshotIntent = {
  kind: 'show-snapshot',
  title: 'Show a snapshot to a host group',
  verb: 'Show it',
  place,
  form: {
    lead: 'As a disk of its own that can be read and never written: for a backup server, or to fetch a file.',
    fields: [
      { field: 'snapshotId', label: 'Snapshot', as: 'one of', choices: 'snapshots of it' },
      { field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups' },
    ],
  },
  intentSchema: showSnapshotSchema,
} as const satisfies IntentKind

export const hideSnapshotIntent = {
  kind: 'hide-snapshot',
  title: 'Take a snapshot from a host group',
  verb: 'Take it away',
  place,
  form: {
    fields: [
      { field: 'snapshotId', label: 'Snapshot', as: 'one of', choices: 'snapshots of it' },
      { field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups' },
    ],
  },
  // Of its own: what is compiled for the browser is told apart by the schema itself.
  intentSchema: { ...showSnapshotSchema },
} as const satisfies IntentKind

/** What volumes were, and copies of it. */
export const snapshotIntents: readonly IntentKind[] = [
  takeSnapshotIntent,
  ...cloneIntents,
  restoreVolumeIntent,
  bringBackFileIntent,
  removeSnapshotsIntent,
  keepSnapshotsIntent,
  holdSnapshotIntent,
  showSnapshotIntent,
  hideSnapshotIntent,
]

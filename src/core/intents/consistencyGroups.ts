import { idOrBlankSchema, idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const name = { type: 'string', maxLength: 255 } as const
const place = '/provision/consistency-groups?sel={consistencyGroupId}'

const formConsistencyGroupSchema = {
  type: 'object',
  required: ['volumeIds', 'name'],
  additionalProperties: false,
  properties: { volumeIds: { type: 'array', maxItems: 64, uniqueItems: true, items: idSchema }, name },
} as const
export type FormConsistencyGroupIntent = IntentOf<typeof formConsistencyGroupSchema>

export const formConsistencyGroupIntent = {
  kind: 'form-consistency-group',
  title: 'Form a consistency group',
  verb: 'Form it',
  place: '/provision',
  begins: '/provision',
  form: {
    lead: 'Snapshots of its volumes are of one instant from then on, by hand and by schedule.',
    fields: [{ field: 'name', label: 'Name', hint: 'Such as that of the application.', as: 'text' }],
  },
  intentSchema: formConsistencyGroupSchema,
} as const satisfies IntentKind

const dissolveConsistencyGroupSchema = {
  type: 'object',
  required: ['consistencyGroupId'],
  additionalProperties: false,
  properties: { consistencyGroupId: idOrBlankSchema },
} as const
export type DissolveConsistencyGroupIntent = IntentOf<typeof dissolveConsistencyGroupSchema>

export const dissolveConsistencyGroupIntent = {
  kind: 'dissolve-consistency-group',
  title: 'Dissolve a consistency group',
  verb: 'Dissolve it',
  place,
  offer: { words: 'Dissolve', when: {} },
  form: { lead: 'Its volumes stay, and so do their snapshots; the next ones are taken one by one.', fields: [] },
  intentSchema: dissolveConsistencyGroupSchema,
} as const satisfies IntentKind

const snapshotGroupSchema = {
  type: 'object',
  required: ['consistencyGroupId', 'name', 'reason'],
  additionalProperties: false,
  properties: { consistencyGroupId: idOrBlankSchema, name, reason: { type: 'string', maxLength: 500 } },
} as const
export type SnapshotGroupIntent = IntentOf<typeof snapshotGroupSchema>

export const snapshotGroupIntent = {
  kind: 'snapshot-group',
  title: 'Take snapshots of a group at one instant',
  verb: 'Take them',
  place,
  offer: { words: 'Snapshots', when: {} },
  form: {
    fields: [
      { field: 'name', label: 'Name', hint: 'It stands behind the name of each volume.', as: 'suggested name' },
      { field: 'reason', label: 'What they are for', hint: 'Such as: before the upgrade of the register.', as: 'text' },
    ],
  },
  intentSchema: snapshotGroupSchema,
} as const satisfies IntentKind

/** Volumes whose snapshots are of one instant. */
export const consistencyIntents: readonly IntentKind[] = [
  formConsistencyGroupIntent,
  snapshotGroupIntent,
  dissolveConsistencyGroupIntent,
]

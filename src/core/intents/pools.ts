import { idOrBlankSchema, idSchema, raidSchemeSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const createPoolSchema = {
  type: 'object',
  required: ['systemId', 'name', 'driveIds', 'scheme', 'maxGroupDrives', 'spareCount', 'snapshotSharePercent'],
  additionalProperties: false,
  properties: {
    systemId: idOrBlankSchema,
    name: { type: 'string', maxLength: 255 },
    driveIds: {
      type: 'array',
      maxItems: 5000,
      uniqueItems: true,
      items: idSchema,
    },
    scheme: raidSchemeSchema,
    maxGroupDrives: { type: 'integer', minimum: 1, maximum: 64 },
    spareCount: { type: 'integer', minimum: 0, maximum: 100 },
    snapshotSharePercent: { type: 'number', minimum: 0, maximum: 50 },
  },
} as const
export type CreatePoolIntent = IntentOf<typeof createPoolSchema>

export const createPoolIntent = {
  kind: 'create-pool',
  title: 'Create a pool',
  begins: '/build/pools?draft=choose-system',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  form: {
    fields: [
      {
        field: 'name',
        label: 'Name',
        hint: "Letters, digits, . _ - ; can't be changed on most systems.",
        as: 'suggested name',
      },
      { field: 'driveIds', label: 'Drives', as: 'part' },
      {
        field: 'scheme',
        label: 'Layout',
        as: 'side by side',
        options: [
          { value: { kind: 'mirror', copies: 2 }, words: 'mirror 2' },
          { value: { kind: 'mirror', copies: 3 }, words: 'mirror 3' },
          { value: { kind: 'parity', parityDrives: 1 }, words: 'parity 1' },
          { value: { kind: 'parity', parityDrives: 2 }, words: 'parity 2' },
          { value: { kind: 'parity', parityDrives: 3 }, words: 'parity 3' },
        ],
      },
      { field: 'maxGroupDrives', label: 'Largest group', hint: 'drives', as: 'number' },
      { field: 'spareCount', label: 'Spares', hint: 'drives kept back', as: 'number', isBeside: true },
      { field: 'snapshotSharePercent', label: 'Snapshot reserve', hint: '% of usable', as: 'number', isBeside: true },
    ],
  },
  intentSchema: createPoolSchema,
} as const satisfies IntentKind

const removePoolSchema = {
  type: 'object',
  required: ['systemId', 'poolId'],
  additionalProperties: false,
  properties: {
    systemId: idOrBlankSchema,
    poolId: idOrBlankSchema,
  },
} as const
export type RemovePoolIntent = IntentOf<typeof removePoolSchema>

export const removePoolIntent = {
  kind: 'remove-pool',
  title: 'Remove a pool',
  verb: 'Remove',
  place: '/build/pools?sel={poolId}',
  form: {
    lead: 'Only an empty pool can be removed. Its drives are then free for another.',
    fields: [],
  },
  intentSchema: removePoolSchema,
} as const satisfies IntentKind

const keepPoolSchema = {
  type: 'object',
  required: ['poolId', 'application'],
  additionalProperties: false,
  properties: { poolId: idOrBlankSchema, application: { type: 'string', maxLength: 60 } },
} as const
export type KeepPoolIntent = IntentOf<typeof keepPoolSchema>

export const keepPoolIntent = {
  kind: 'keep-pool',
  title: 'Keep a pool for one application',
  verb: 'Keep it',
  place: '/build/pools?sel={poolId}',
  form: {
    lead: 'Volumes of any other are refused from then on; those that stand in it stay.',
    fields: [
      {
        field: 'application',
        label: 'For',
        hint: 'As its volumes name it. Left empty, the pool is for all again.',
        as: 'text',
        choices: 'names of applications',
      },
    ],
  },
  intentSchema: keepPoolSchema,
} as const satisfies IntentKind

/** Pools of an array. */
export const poolIntents: readonly IntentKind[] = [createPoolIntent, removePoolIntent, keepPoolIntent]

import { failureDomainSchema, idSchema, spreadSchemeSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const formClusterSchema = {
  type: 'object',
  required: [
    'systemId',
    'name',
    'driveIds',
    'roles',
    'domain',
    'scheme',
    'keepsRebuildReserve',
    'snapshotSharePercent',
  ],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    name: { type: 'string', maxLength: 255 },
    driveIds: { type: 'array', maxItems: 10_000, items: idSchema },
    /** Roles that differ from the suggested ones, by drive. */
    roles: { type: 'object', maxProperties: 10_000, additionalProperties: { enum: ['cache', 'capacity'] } },
    domain: failureDomainSchema,
    scheme: spreadSchemeSchema,
    keepsRebuildReserve: { type: 'boolean' },
    snapshotSharePercent: { type: 'number', minimum: 0, maximum: 50 },
  },
} as const
export type FormClusterIntent = Omit<IntentOf<typeof formClusterSchema>, 'roles'> & {
  readonly roles: Readonly<Record<string, 'cache' | 'capacity'>>
}

export const formClusterIntent = {
  kind: 'form-cluster',
  title: 'Form a cluster',
  begins: '/build/clusters',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  form: {
    fields: [
      {
        field: 'name',
        label: 'Name',
        hint: 'Letters, digits, . _ - ; its pool is called the same with -01.',
        as: 'suggested name',
      },
      { field: 'driveIds', label: 'Drives', as: 'part' },
      {
        field: 'domain',
        label: 'Failure domain',
        as: 'side by side',
        options: [
          { value: 'node', words: 'node' },
          { value: 'enclosure', words: 'enclosure' },
          { value: 'rack', words: 'rack' },
        ],
      },
      { field: 'scheme', label: 'Protection', as: 'part' },
      { field: 'snapshotSharePercent', label: 'Snapshot reserve', hint: '% of usable', as: 'number' },
      { field: 'keepsRebuildReserve', label: 'Keep space free to heal after losing one domain', as: 'tick' },
    ],
  },
  intentSchema: formClusterSchema,
} as const satisfies IntentKind

const rateField = {
  field: 'ratePercent',
  label: 'Rate of moving',
  hint: '% of drives and links; hosts have the rest',
  as: 'number',
} as const

const growClusterSchema = {
  type: 'object',
  required: ['systemId', 'poolId', 'driveIds', 'roles', 'ratePercent'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    poolId: idSchema,
    driveIds: { type: 'array', maxItems: 10_000, items: idSchema },
    roles: { type: 'object', additionalProperties: { enum: ['cache', 'capacity'] } },
    /** Of drives and links that the moving may take. */
    ratePercent: { type: 'number', minimum: 5, maximum: 100 },
  },
} as const
export type GrowClusterIntent = Omit<IntentOf<typeof growClusterSchema>, 'roles'> & {
  readonly roles: Readonly<Record<string, 'cache' | 'capacity'>>
}

export const growClusterIntent = {
  kind: 'grow-cluster',
  title: 'Add nodes, banks or drives to a cluster',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  form: {
    lead: 'Drives of a node that is not in the cluster bring the node in. Capacity without a cache drive goes behind the cache drives that its node has.',
    fields: [{ field: 'driveIds', label: 'Drives', as: 'part' }, rateField],
  },
  intentSchema: growClusterSchema,
} as const satisfies IntentKind

const shrinkClusterSchema = {
  type: 'object',
  required: ['systemId', 'poolId', 'driveIds', 'ratePercent'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    poolId: idSchema,
    /** Drives that leave; a cache drive takes its bank with it. */
    driveIds: { type: 'array', maxItems: 10_000, items: idSchema },
    ratePercent: { type: 'number', minimum: 5, maximum: 100 },
  },
} as const
export type ShrinkClusterIntent = IntentOf<typeof shrinkClusterSchema>

export const shrinkClusterIntent = {
  kind: 'shrink-cluster',
  title: 'Take nodes, banks or drives out of a cluster',
  verb: 'Carry out',
  place: '/build/systems/{systemId}',
  form: {
    lead: 'A cache drive takes its whole bank with it. A node of which nothing is left goes too.',
    fields: [{ field: 'driveIds', label: 'Drives', as: 'part' }, rateField],
  },
  intentSchema: shrinkClusterSchema,
} as const satisfies IntentKind

const dissolveClusterSchema = {
  type: 'object',
  required: ['systemId', 'typedName'],
  additionalProperties: false,
  properties: { systemId: idSchema, typedName: { type: 'string', maxLength: 255 } },
} as const
export type DissolveClusterIntent = IntentOf<typeof dissolveClusterSchema>

export const dissolveClusterIntent = {
  kind: 'dissolve-cluster',
  title: 'Dissolve a cluster',
  verb: 'Dissolve',
  place: '/build/systems/{systemId}',
  form: {
    fields: [{ field: 'typedName', label: 'Name of the cluster', as: 'typed name' }],
  },
  intentSchema: dissolveClusterSchema,
} as const satisfies IntentKind

/** Clusters of bare nodes. */
export const clusterIntents: readonly IntentKind[] = [
  formClusterIntent,
  growClusterIntent,
  shrinkClusterIntent,
  dissolveClusterIntent,
]

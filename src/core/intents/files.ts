import {
  accessEntrySchema,
  exportRuleSchema,
  fileRuleSchema,
  idOrBlankSchema,
  posixIdSchema as id,
  quotaSchema,
  shareGrantSchema,
} from '../estate'
import { showEarlierFilesIntent } from './earlierFiles'
import { serveFilesIntent, stopFileServiceIntent } from './fileServices'
import { reportFilesIntent, testShareIntent } from './filesFromHosts'
import type { FormField, IntentKind, IntentOf } from './IntentKind'

const rights = {
  ownerUid: id,
  ownerGid: id,
  mode: { type: 'string', maxLength: 4 },
  /** Access list of its root: where it has entries they count, and not the mode. Left out: as it is. */
  acl: { type: 'array', maxItems: 100, items: accessEntrySchema },
  rules: { type: 'array', maxItems: 1000, items: exportRuleSchema },
  /** Who may do what over SMB. */
  grants: { type: 'array', maxItems: 1000, items: shareGrantSchema },
} as const
const rightsFields: readonly FormField[] = [
  { field: 'ownerUid', label: 'Owner of its root, uid', hint: '', as: 'number' },
  { field: 'ownerGid', label: 'Group, gid', hint: '', as: 'number', isBeside: true },
  { field: 'mode', label: 'Mode', hint: 'Octal', as: 'identifier', isBeside: true },
  { field: 'acl', label: 'Access list', as: 'access list' },
  { field: 'rules', label: 'Export rules, over NFS', as: 'export rules' },
  { field: 'grants', label: 'Grants, over SMB', as: 'share grants' },
]

/** Over what a new share is served, and who may use it. */
const servedFields: readonly FormField[] = [
  {
    field: 'over',
    label: 'Shared over',
    as: 'side by side',
    options: [
      { value: 'NFS', words: 'NFS' },
      { value: 'SMB', words: 'SMB' },
      { value: 'NFS and SMB', words: 'both' },
    ],
  },
  ...rightsFields.map(field =>
    field.as === 'export rules'
      ? { ...field, onlyWhile: { field: 'over', is: ['NFS', 'NFS and SMB'] } }
      : field.as === 'share grants'
        ? { ...field, onlyWhile: { field: 'over', is: ['SMB', 'NFS and SMB'] } }
        : field,
  ),
]

const provisionShareSchema = {
  type: 'object',
  required: ['fileServiceId', 'name', 'size', 'poolId', 'classId', 'ownerUid', 'ownerGid', 'mode', 'rules'],
  additionalProperties: false,
  properties: {
    fileServiceId: idOrBlankSchema,
    name: { type: 'string', maxLength: 200 },
    size: { type: 'string', maxLength: 80 },
    /** Blank for the best of its system under the class. */
    poolId: idOrBlankSchema,
    classId: idOrBlankSchema,
    application: { type: 'string', maxLength: 60 },
    /** Left out: NFS. */
    over: { enum: ['NFS', 'SMB', 'NFS and SMB'] },
    ...rights,
    /** Whether its hosts find its snapshots in a directory of their own; left out: they do not. */
    showsEarlier: { type: 'boolean' },
    /** A line each. */
    labels: { type: 'string', maxLength: 2000 },
    warnPercent: { type: ['integer', 'null'], minimum: 1, maximum: 99 },
  },
} as const
export type ProvisionShareIntent = IntentOf<typeof provisionShareSchema>

export const provisionShareIntent = {
  kind: 'provision-share',
  title: 'Provision a share',
  verb: 'Carry out',
  place: '/provision/shares',
  start: {
    ...{ over: 'NFS', ownerUid: 0, ownerGid: 0, mode: '0770', acl: [], grants: [] },
    ...{ showsEarlier: false, labels: '', warnPercent: null },
  },
  form: {
    fields: [
      { field: 'fileServiceId', label: 'File service', as: 'one of', choices: 'file services' },
      { field: 'name', label: 'Name', hint: 'Exported as /name.', as: 'text', isBeside: true },
      { field: 'size', label: 'Size', hint: 'More cannot be written. With its unit: 2 TiB.', as: 'size' },
      { field: 'classId', label: 'Service class', as: 'one of', choices: 'service classes', isBeside: true },
      { field: 'poolId', label: 'Pool', as: 'one of', choices: 'pools or none' },
      { field: 'application', label: 'Application', as: 'text', choices: 'names of applications', isBeside: true },
      ...servedFields,
      {
        field: 'showsEarlier',
        label: 'Hosts find its snapshots at its root, and copy files back by themselves',
        as: 'tick',
      },
      { field: 'labels', label: 'Labels', hint: 'A line each.', as: 'lines' },
      {
        field: 'warnPercent',
        label: 'Warn from so full on, %',
        hint: 'Left empty, from 90 on.',
        as: 'number or none',
        isBeside: true,
      },
    ],
  },
  intentSchema: provisionShareSchema,
} as const satisfies IntentKind

const shareAgainSchema = {
  type: 'object',
  required: ['fileSystemId', 'fileServiceId', 'name', 'ownerUid', 'ownerGid', 'mode', 'rules'],
  additionalProperties: false,
  properties: {
    fileSystemId: idOrBlankSchema,
    fileServiceId: idOrBlankSchema,
    /** Blank for the name of the file system. */
    name: { type: 'string', maxLength: 200 },
    over: { enum: ['NFS', 'SMB', 'NFS and SMB'] },
    ...rights,
    quotas: { type: 'array', maxItems: 1000, items: quotaSchema },
    fileRules: { type: 'array', maxItems: 200, items: fileRuleSchema },
    /** What people said of it, and from which fill on they wanted to be warned; left out: nothing. */
    labels: { type: 'array', maxItems: 20, items: { type: 'string', minLength: 1, maxLength: 60 } },
    warnPercent: { type: ['integer', 'null'], minimum: 1, maximum: 99 },
    /** Whether its hosts found its snapshots; left out: they did not. */
    showsEarlier: { type: 'boolean' },
  },
} as const
export type ShareAgainIntent = IntentOf<typeof shareAgainSchema>

export const shareAgainIntent = {
  kind: 'share-again',
  title: 'Share a file system again',
  verb: 'Share it',
  place: '/provision/file-systems?sel={fileSystemId}',
  offer: { words: 'Share again', when: { shareCount: [0] } },
  start: { over: 'NFS', ownerUid: 0, ownerGid: 0, mode: '0770', acl: [], grants: [], quotas: [], fileRules: [] },
  form: {
    lead: 'Its files are there as they were left. Who may use them is said anew.',
    fields: [
      { field: 'fileServiceId', label: 'File service', as: 'one of', choices: 'file services' },
      { field: 'name', label: 'Name', hint: 'Exported as /name; blank for its own.', as: 'text', isBeside: true },
      ...servedFields,
      { field: 'quotas', label: 'Quotas', as: 'quotas' },
      { field: 'fileRules', label: 'Kinds of files', as: 'file rules' },
    ],
  },
  intentSchema: shareAgainSchema,
} as const satisfies IntentKind

const setShareRightsSchema = {
  type: 'object',
  required: ['shareId', 'ownerUid', 'ownerGid', 'mode', 'rules'],
  additionalProperties: false,
  properties: { shareId: idOrBlankSchema, ...rights },
} as const
export type SetShareRightsIntent = IntentOf<typeof setShareRightsSchema>

export const setShareRightsIntent = {
  kind: 'set-share-rights',
  title: 'Set who may use a share',
  verb: 'Set it',
  place: '/provision/shares?sel={shareId}',
  offer: { words: 'Set rights', when: {} },
  alters: 'shareId',
  form: {
    lead: 'A rule for one host counts before a longer subnet, that before a shorter one and any; of equals the first.',
    fields: rightsFields,
  },
  intentSchema: setShareRightsSchema,
} as const satisfies IntentKind

const setShareLimitsSchema = {
  type: 'object',
  required: ['shareId', 'quotas', 'fileRules'],
  additionalProperties: false,
  properties: {
    shareId: idOrBlankSchema,
    /** Bytes are decimal text; null for no limit. */
    quotas: { type: 'array', maxItems: 1000, items: quotaSchema },
    fileRules: { type: 'array', maxItems: 200, items: fileRuleSchema },
  },
} as const
export type SetShareLimitsIntent = IntentOf<typeof setShareLimitsSchema>

export const setShareLimitsIntent = {
  kind: 'set-share-limits',
  title: 'Limit what may be written to a share',
  verb: 'Set it',
  place: '/provision/shares?sel={shareId}',
  offer: { words: 'Set limits', when: {} },
  alters: 'shareId',
  form: {
    lead: 'Every quota above a file counts. A soft limit may be passed for as long as its grace; a hard one never.',
    fields: [
      { field: 'quotas', label: 'Quotas', as: 'quotas' },
      { field: 'fileRules', label: 'Kinds of files', as: 'file rules' },
    ],
  },
  intentSchema: setShareLimitsSchema,
} as const satisfies IntentKind

const removeShareSchema = {
  type: 'object',
  required: ['shareId', 'confirmedName'],
  additionalProperties: false,
  properties: { shareId: idOrBlankSchema, confirmedName: { type: 'string', maxLength: 255 } },
} as const
export type RemoveShareIntent = IntentOf<typeof removeShareSchema>

export const removeShareIntent = {
  kind: 'remove-share',
  title: 'Take a share away',
  verb: 'Take it away',
  place: '/provision/shares?sel={shareId}',
  offer: { words: 'Take away', when: {} },
  form: {
    lead: 'Hosts can no longer mount it. Its files stay on their volume, from which they can be shared again.',
    fields: [{ field: 'confirmedName', label: 'Its name, to say that you mean this one', as: 'typed name' }],
  },
  intentSchema: removeShareSchema,
} as const satisfies IntentKind

/** File services and shares. */
export const fileIntents: readonly IntentKind[] = [
  serveFilesIntent,
  stopFileServiceIntent,
  provisionShareIntent,
  shareAgainIntent,
  setShareRightsIntent,
  setShareLimitsIntent,
  showEarlierFilesIntent,
  testShareIntent,
  reportFilesIntent,
  removeShareIntent,
]

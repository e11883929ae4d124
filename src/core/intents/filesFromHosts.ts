import { idOrBlankSchema, posixIdSchema as id } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const testShareSchema = {
  type: 'object',
  required: ['shareId', 'hostId', 'uid', 'gid', 'groups', 'isRestarted'],
  additionalProperties: false,
  properties: {
    shareId: idOrBlankSchema,
    hostId: idOrBlankSchema,
    uid: id,
    gid: id,
    groups: { type: 'array', maxItems: 64, items: id },
    isRestarted: { type: 'boolean' },
    /** As whom of a directory, by the id: then the numbers are theirs, and it is tried over SMB where it is shared so. */
    personId: idOrBlankSchema,
  },
} as const
export type TestShareIntent = IntentOf<typeof testShareSchema>

export const testShareIntent = {
  kind: 'test-share',
  title: 'Try a share as somebody',
  verb: 'Try it',
  place: '/provision/shares?sel={shareId}',
  offer: { words: 'Try as somebody', when: {} },
  start: { uid: 1000, gid: 1000, groups: [], personId: '' },
  form: {
    lead: 'A host mounts it, writes a file as that identity and reads it back; what is refused must be what the rights say. The file is taken away again.',
    fields: [
      { field: 'hostId', label: 'From host', as: 'one of', choices: 'hosts with an agent' },
      { field: 'personId', label: 'As a person of a directory', hint: 'Or by numbers, below.', as: 'person' },
      ...(['uid', 'gid', 'groups'] as const).map(field => ({
        field,
        label: field === 'groups' ? 'Other groups' : field,
        hint: field === 'groups' ? 'With commas' : '',
        as: field === 'groups' ? ('numbers' as const) : ('number' as const),
        isBeside: field !== 'uid',
        onlyWhile: { field: 'personId', is: 'blank' },
      })),
      { field: 'isRestarted', label: 'Restart the host between, to prove that it mounts it again', as: 'tick' },
    ],
  },
  intentSchema: testShareSchema,
} as const satisfies IntentKind

const reportFilesSchema = {
  type: 'object',
  required: ['shareId', 'hostId', 'personId', 'uid', 'gid'],
  additionalProperties: false,
  properties: {
    shareId: idOrBlankSchema,
    hostId: idOrBlankSchema,
    /** As whom of a directory it looks; blank for the numbers. */
    personId: idOrBlankSchema,
    uid: id,
    gid: id,
  },
} as const
export type ReportFilesIntent = IntentOf<typeof reportFilesSchema>

export const reportFilesIntent = {
  kind: 'report-files',
  title: 'Report on the files of a share',
  verb: 'Walk through them',
  place: '/provision/shares?sel={shareId}',
  offer: { words: 'Report on files', when: {} },
  start: { uid: 0, gid: 0, personId: '' },
  form: {
    lead: 'A host mounts it and walks through all its files: names, owners, sizes, times, and the first bytes of each. Files are only read; what is found is kept.',
    fields: [
      { field: 'hostId', label: 'By host', as: 'one of', choices: 'hosts with an agent' },
      { field: 'personId', label: 'As a person of a directory', hint: 'Or by numbers, below.', as: 'person' },
      ...(['uid', 'gid'] as const).map(field => ({
        ...{ field, label: field, hint: '', as: 'number' as const, isBeside: field === 'gid' },
        onlyWhile: { field: 'personId', is: 'blank' },
      })),
    ],
  },
  intentSchema: reportFilesSchema,
} as const satisfies IntentKind

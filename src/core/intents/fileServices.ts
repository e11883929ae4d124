import { idOrBlankSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const serveFilesSchema = {
  type: 'object',
  required: ['systemId', 'name', 'firstAddress', 'nameServers', 'searchSuffixes'],
  additionalProperties: false,
  properties: {
    systemId: idOrBlankSchema,
    name: { type: 'string', maxLength: 253 },
    /** Of the first unit, with its subnet; the others have those that follow. */
    firstAddress: { type: 'string', maxLength: 64 },
    nameServers: { type: 'string', maxLength: 400 },
    searchSuffixes: { type: 'string', maxLength: 400 },
  },
} as const
export type ServeFilesIntent = IntentOf<typeof serveFilesSchema>

export const serveFilesIntent = {
  kind: 'serve-files',
  title: 'Serve files from a system',
  verb: 'Start it',
  place: '/provision/file-services',
  form: {
    lead: 'Hosts reach its shares by one name; each node or controller answers at an address of its own, and for one that is down another does.',
    fields: [
      { field: 'systemId', label: 'System', as: 'one of', choices: 'systems that serve files' },
      { field: 'name', label: 'Name', hint: 'In full: files.kilnhill.marrowfield.example', as: 'identifier' },
      {
        field: 'firstAddress',
        label: 'First address',
        hint: 'With its subnet, such as 10.61.40.21/24; the others have those that follow.',
        as: 'identifier',
      },
      { field: 'nameServers', label: 'Name servers', hint: 'With commas; none asks nobody.', as: 'identifier' },
      { field: 'searchSuffixes', label: 'Search suffixes', hint: 'With commas.', as: 'identifier', isBeside: true },
    ],
  },
  intentSchema: serveFilesSchema,
} as const satisfies IntentKind

const stopFileServiceSchema = {
  type: 'object',
  required: ['fileServiceId'],
  additionalProperties: false,
  properties: { fileServiceId: idOrBlankSchema },
} as const
export type StopFileServiceIntent = IntentOf<typeof stopFileServiceSchema>

export const stopFileServiceIntent = {
  kind: 'stop-file-service',
  title: 'Remove a file service',
  verb: 'Remove',
  place: '/provision/file-services?sel={fileServiceId}',
  offer: { words: 'Remove', when: {} },
  form: { lead: 'Only one that serves no share any more.', fields: [] },
  intentSchema: stopFileServiceSchema,
} as const satisfies IntentKind

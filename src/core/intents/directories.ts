import { idOrBlankSchema, shareGrantSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const registerDirectorySchema = {
  type: 'object',
  required: ['name', 'address', 'fingerprint', 'baseDn', 'readAs', 'secretId'],
  additionalProperties: false,
  properties: {
    name: { type: 'string', maxLength: 60 },
    address: { type: 'string', maxLength: 500 },
    /** Of the certificate that is accepted there. */
    fingerprint: { type: 'string', maxLength: 100 },
    baseDn: { type: 'string', maxLength: 1000 },
    readAs: { type: 'string', maxLength: 1000 },
    secretId: idOrBlankSchema,
  },
} as const
export type RegisterDirectoryIntent = IntentOf<typeof registerDirectorySchema>

export const registerDirectoryIntent = {
  kind: 'register-directory',
  title: 'Register a directory',
  verb: 'Register and read it',
  place: '/grant/directories',
  form: {
    lead: 'People and groups are read from it over LDAP, sealed by TLS. Nothing is ever written to it.',
    fields: [
      {
        field: 'address',
        label: 'Address',
        hint: 'ldaps://directory.example, with :636 where another port is meant.',
        as: 'identifier',
      },
      {
        field: 'fingerprint',
        label: 'Certificate that is accepted',
        hint: 'Its SHA-256 as the directory’s own console shows it. Name and password go to no other.',
        as: 'certificate',
      },
      { field: 'name', label: 'Name', hint: 'As people say it.', as: 'text' },
      { field: 'baseDn', label: 'Read below', hint: 'dc=marrowfield,dc=example', as: 'identifier', isBeside: true },
      { field: 'readAs', label: 'Read as', hint: 'An account that may read, and no more.', as: 'identifier' },
      {
        field: 'secretId',
        label: 'Its password',
        hint: 'Kept sealed, and never shown again.',
        as: 'secret',
        purpose: 'directory',
        isBeside: true,
      },
    ],
  },
  intentSchema: registerDirectorySchema,
} as const satisfies IntentKind

const forgetDirectorySchema = {
  type: 'object',
  required: ['directoryId'],
  additionalProperties: false,
  properties: { directoryId: idOrBlankSchema },
} as const
export type ForgetDirectoryIntent = IntentOf<typeof forgetDirectorySchema>

export const forgetDirectoryIntent = {
  kind: 'forget-directory',
  title: 'Take a directory out of the estate',
  verb: 'Take it out',
  place: '/grant/directories?sel={directoryId}',
  offer: { words: 'Take out', when: {} },
  form: {
    lead: 'Its people and groups are forgotten with it. Nothing is changed in it, nor in the rights of shares.',
    fields: [],
  },
  intentSchema: forgetDirectorySchema,
} as const satisfies IntentKind

const joinDirectorySchema = {
  type: 'object',
  required: ['fileServiceId', 'directoryId', 'joinAs', 'secretId'],
  additionalProperties: false,
  properties: {
    fileServiceId: idOrBlankSchema,
    directoryId: idOrBlankSchema,
    joinAs: { type: 'string', maxLength: 1000 },
    secretId: idOrBlankSchema,
  },
} as const
export type JoinDirectoryIntent = IntentOf<typeof joinDirectorySchema>

export const joinDirectoryIntent = {
  kind: 'join-directory',
  title: 'Take a file service into a directory',
  verb: 'Join it',
  place: '/provision/file-services?sel={fileServiceId}',
  offer: { words: 'Join a directory', when: { joinedTo: null } },
  form: {
    lead: 'It gets an account of its own there, and people can sign in to its shares over SMB. The account by which it joins is used once.',
    fields: [
      { field: 'directoryId', label: 'Directory', as: 'one of', choices: 'directories' },
      {
        field: 'joinAs',
        label: 'Join by the account',
        hint: 'Its distinguished name; it must be let take computers in.',
        as: 'identifier',
      },
      {
        field: 'secretId',
        label: 'Its password',
        hint: 'Dropped as soon as it has joined.',
        as: 'secret',
        purpose: 'joining',
        isBeside: true,
      },
    ],
  },
  intentSchema: joinDirectorySchema,
} as const satisfies IntentKind

const setServiceGrantsSchema = {
  type: 'object',
  required: ['fileServiceId', 'grants'],
  additionalProperties: false,
  properties: {
    fileServiceId: idOrBlankSchema,
    /** For all of its shares over SMB, besides those of each share. */
    grants: { type: 'array', maxItems: 1000, items: shareGrantSchema },
  },
} as const
export type SetServiceGrantsIntent = IntentOf<typeof setServiceGrantsSchema>

export const setServiceGrantsIntent = {
  kind: 'set-service-grants',
  title: 'Set who may use every share of a file service',
  verb: 'Set it',
  place: '/provision/file-services?sel={fileServiceId}',
  offer: { words: 'Set grants for all', when: {} },
  alters: 'fileServiceId',
  form: {
    lead: 'They count for each of its shares over SMB, beside the grants of the share itself: a refusal here is one everywhere.',
    fields: [{ field: 'grants', label: 'Grants for all its shares, over SMB', as: 'share grants' }],
  },
  intentSchema: setServiceGrantsSchema,
} as const satisfies IntentKind

const leaveDirectorySchema = {
  type: 'object',
  required: ['fileServiceId'],
  additionalProperties: false,
  properties: { fileServiceId: idOrBlankSchema },
} as const
export type LeaveDirectoryIntent = IntentOf<typeof leaveDirectorySchema>

export const leaveDirectoryIntent = {
  kind: 'leave-directory',
  title: 'Take a file service out of its directory',
  verb: 'Take it out',
  place: '/provision/file-services?sel={fileServiceId}',
  offer: { words: 'Leave its directory', when: {}, isRare: true },
  form: { lead: 'Only one that shares nothing over SMB: nobody could sign in any more.', fields: [] },
  intentSchema: leaveDirectorySchema,
} as const satisfies IntentKind

/** Directories, and the file services that belong to them. */
export const directoryIntents: readonly IntentKind[] = [
  registerDirectoryIntent,
  forgetDirectoryIntent,
  joinDirectoryIntent,
  leaveDirectoryIntent,
  setServiceGrantsIntent,
]

import { idOrBlankSchema, idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const registerHostSchema = {
  type: 'object',
  required: ['agentAddress', 'groupName'],
  additionalProperties: false,
  properties: {
    agentAddress: { type: 'string', maxLength: 500 },
    groupName: { type: 'string', maxLength: 255 },
    /** Where it stands; blank where that is not said. */
    siteId: idOrBlankSchema,
    /** Of the credential that is shown to it; blank where none is asked for. */
    secretId: idOrBlankSchema,
  },
} as const
export type RegisterHostIntent = IntentOf<typeof registerHostSchema>

export const registerHostIntent = {
  kind: 'register-host',
  title: 'Register a host',
  verb: 'Register',
  place: '/provision/hosts',
  form: {
    fields: [
      {
        field: 'agentAddress',
        label: 'Address of its agent',
        hint: 'Such as http://10.0.0.5:4300; it says which initiators the host has.',
        as: 'text',
      },
      {
        field: 'groupName',
        label: 'Host group',
        hint: 'Hosts of a group see the same volumes. A new name makes a new group.',
        as: 'text',
        choices: 'names of host groups',
      },
      {
        field: 'siteId',
        label: 'Site',
        hint: 'Pools at its site are the better places for what it sees.',
        as: 'one of',
        choices: 'sites or none',
      },
      {
        field: 'secretId',
        label: 'Credential of its agent',
        hint: 'Where one is asked for. It is kept sealed, and never shown again.',
        as: 'secret',
        purpose: 'agent',
      },
    ],
  },
  intentSchema: registerHostSchema,
} as const satisfies IntentKind

const registerHostsSchema = {
  type: 'object',
  required: ['list'],
  additionalProperties: false,
  properties: { list: { type: 'string', maxLength: 2_000_000 } },
} as const
export type RegisterHostsIntent = IntentOf<typeof registerHostsSchema>

export const registerHostsIntent = {
  kind: 'register-hosts',
  title: 'Register hosts from a list',
  verb: 'Register',
  place: '/provision/hosts',
  filledByLink: ['list'],
  form: {
    lead: 'A line each: its name, its host group, and what it logs in by (IQN, WWPN, NQN). They need no agent; what no agent can test, the system is asked for.',
    fields: [
      {
        field: 'list',
        label: 'Hosts',
        hint: 'Lines of CSV: scan-1, scanners, iqn.2026-01.example.scan:1',
        as: 'lines',
      },
    ],
  },
  intentSchema: registerHostsSchema,
} as const satisfies IntentKind

const placeHostsSchema = {
  type: 'object',
  required: ['hostIds', 'siteId'],
  additionalProperties: false,
  properties: {
    hostIds: { type: 'array', maxItems: 1000, uniqueItems: true, items: idSchema },
    /** Blank for none. */
    siteId: idOrBlankSchema,
  },
} as const
export type PlaceHostsIntent = IntentOf<typeof placeHostsSchema>

export const placeHostsIntent = {
  kind: 'place-hosts',
  title: 'Say where hosts stand',
  verb: 'Carry out',
  place: '/provision/hosts?sel={hostIds}',
  offer: { words: 'Say where it stands', when: {}, isRare: true },
  form: {
    lead: 'Pools at their site are the better places for what they see.',
    fields: [{ field: 'siteId', label: 'Site', as: 'one of', choices: 'sites or none' }],
  },
  intentSchema: placeHostsSchema,
} as const satisfies IntentKind

const alignGroupSchema = {
  type: 'object',
  required: ['systemId', 'hostGroupId'],
  additionalProperties: false,
  properties: { systemId: idOrBlankSchema, hostGroupId: idOrBlankSchema },
} as const
export type AlignGroupIntent = IntentOf<typeof alignGroupSchema>

export const alignGroupIntent = {
  kind: 'align-group',
  title: 'Let all hosts of a group in on a system',
  verb: 'Let them in',
  place: '/provision/hosts',
  filledByLink: ['systemId', 'hostGroupId'],
  form: {
    lead: 'A host that has joined a group sees what the group is shown once the system lets it in too.',
    fields: [
      { field: 'systemId', label: 'System', as: 'one of', choices: 'systems' },
      { field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups' },
    ],
  },
  intentSchema: alignGroupSchema,
} as const satisfies IntentKind

const forgetHostSchema = {
  type: 'object',
  required: ['hostId'],
  additionalProperties: false,
  properties: { hostId: idOrBlankSchema },
} as const
export type ForgetHostIntent = IntentOf<typeof forgetHostSchema>

export const forgetHostIntent = {
  kind: 'forget-host',
  title: 'Take a host out of the estate',
  verb: 'Take it out',
  place: '/provision/hosts?sel={hostId}',
  offer: { words: 'Take out', when: {} },
  form: { lead: 'Only a host that sees no volume. Nothing is changed on it.', fields: [] },
  intentSchema: forgetHostSchema,
} as const satisfies IntentKind

const setHostSignInSchema = {
  type: 'object',
  required: ['hostId', 'signIn', 'secretId', 'systemSecretId'],
  additionalProperties: false,
  properties: {
    hostId: idOrBlankSchema,
    signIn: { enum: ['nothing', 'one-way', 'mutual'] },
    /** By which the host proves itself; blank where it need not. */
    secretId: idOrBlankSchema,
    /** By which systems prove themselves to it. */
    systemSecretId: idOrBlankSchema,
  },
} as const
export type SetHostSignInIntent = IntentOf<typeof setHostSignInSchema>

export const setHostSignInIntent = {
  kind: 'set-host-sign-in',
  title: 'Set how a host proves itself',
  verb: 'Set it',
  place: '/provision/hosts?sel={hostId}',
  offer: { words: 'Prove by CHAP', when: {}, isRare: true },
  start: { signIn: 'one-way', secretId: '', systemSecretId: '' },
  form: {
    lead: 'By CHAP over iSCSI, at every system that lets it log in. Who is logged in stays so.',
    fields: [
      {
        field: 'signIn',
        label: 'Where it logs in',
        as: 'side by side',
        options: [
          { value: 'one-way', words: 'the host proves itself' },
          { value: 'mutual', words: 'both do' },
          { value: 'nothing', words: 'nobody' },
        ],
      },
      {
        field: 'secretId',
        label: 'Secret of the host',
        hint: '12 to 16 characters. Kept sealed, and never shown again.',
        as: 'secret',
        purpose: 'chap',
        onlyWhile: { field: 'signIn', is: ['one-way', 'mutual'] },
      },
      {
        field: 'systemSecretId',
        label: 'Secret of its systems',
        hint: 'Another one.',
        as: 'secret',
        purpose: 'chap',
        onlyWhile: { field: 'signIn', is: 'mutual' },
        isBeside: true,
      },
    ],
  },
  intentSchema: setHostSignInSchema,
} as const satisfies IntentKind

const prepareVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'hostId', 'fileSystem', 'path', 'isRestarted'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    hostId: idOrBlankSchema,
    fileSystem: { enum: ['xfs', 'ext4'] },
    path: { type: 'string', maxLength: 200 },
    isRestarted: { type: 'boolean' },
  },
} as const
export type PrepareVolumeIntent = IntentOf<typeof prepareVolumeSchema>

export const prepareVolumeIntent = {
  kind: 'prepare-volume',
  title: 'Make a volume ready on a host',
  verb: 'Make ready',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Make ready', when: { state: 'in use', isMapped: true } },
  form: {
    lead: 'The host logs in, makes a file system where none stands, mounts it now and at every start, and is tested.',
    fields: [
      { field: 'hostId', label: 'Host', as: 'one of', choices: 'hosts that see it' },
      {
        field: 'path',
        label: 'Mounted at',
        hint: 'Left empty: /srv and the name of the volume.',
        as: 'identifier',
        isBeside: true,
      },
      {
        field: 'fileSystem',
        label: 'File system',
        as: 'side by side',
        options: [
          { value: 'xfs', words: 'xfs' },
          { value: 'ext4', words: 'ext4' },
        ],
      },
      { field: 'isRestarted', label: 'Restart the host, to prove that it comes back with it', as: 'tick' },
    ],
  },
  intentSchema: prepareVolumeSchema,
} as const satisfies IntentKind

/** Hosts, and what is made ready on them. */
const forwardNamesSchema = {
  type: 'object',
  required: ['hostId', 'domain', 'server'],
  additionalProperties: false,
  properties: {
    hostId: idOrBlankSchema,
    domain: { type: 'string', maxLength: 253 },
    /** `address:port`; blank for the server that it asks for all others. */
    server: { type: 'string', maxLength: 64 },
  },
} as const
export type ForwardNamesIntent = IntentOf<typeof forwardNamesSchema>

export const forwardNamesIntent = {
  kind: 'forward-names',
  title: 'Have a host ask elsewhere for names',
  verb: 'Set it',
  place: '/provision/hosts?sel={hostId}',
  offer: { words: 'Forward names', when: {}, isRare: true },
  form: {
    lead: 'Names below a domain are asked of a server of their own; all others as before.',
    fields: [
      { field: 'domain', label: 'Domain', hint: 'In full; a single name is a domain too.', as: 'text' },
      {
        field: 'server',
        label: 'Name server',
        hint: 'Its address and port, such as 10.0.0.53:53. Empty: ask the usual one again.',
        as: 'text',
      },
    ],
  },
  intentSchema: forwardNamesSchema,
} as const satisfies IntentKind

export const hostIntents: readonly IntentKind[] = [
  registerHostIntent,
  registerHostsIntent,
  placeHostsIntent,
  alignGroupIntent,
  forgetHostIntent,
  setHostSignInIntent,
  forwardNamesIntent,
  prepareVolumeIntent,
]

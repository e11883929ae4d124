import { kinds } from '@/changes'
import {
  bytesSchema,
  controllerSchema,
  driveSchema,
  enclosureSchema,
  hostGroupSchema,
  hostSchema,
  idSchema,
  mappingSchema,
  nameAnswerSchema,
  nodePortSchema,
  nodeSchema,
  pathProbeSchema,
  poolSchema,
  portSchema,
  probeSchema,
  siteSchema,
  switchPortSchema,
  switchSchema,
  systemSchema,
  volumeSchema,
} from '@/core/estate'
import type { Right } from '@/app/server/rights'
import { changeStates } from '@/core/plan'

/** How long a body may be where its operation says nothing else (bytes). */
export const defaultBodyBytes = 256 * 1024

/** What each operation of the API takes and answers: the one source of its checks and of the OpenAPI document. */
export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete'
  readonly path: string
  readonly summary: string
  readonly body?: object
  readonly query?: Readonly<Record<string, object>>
  readonly requiredQuery?: readonly string[]
  /** How long a body may be where 256 KiB are too few. */
  readonly bodyBytes?: number
  /** What right it takes, where that is not reading for `get` and changing for the others. */
  readonly right?: Right
  readonly answers?: object
  readonly status?: number
  /** Asked without signing in. */
  readonly isOpen?: true
}

const whole = { type: 'integer', minimum: 0, maximum: 2_147_483_647 }
const text = (maxLength = 255) => ({ type: 'string', maxLength })
const object = (properties: Readonly<Record<string, object>>, optional: readonly string[] = []) => ({
  type: 'object',
  additionalProperties: false,
  required: Object.keys(properties).filter(name => !optional.includes(name)),
  properties,
})
const list = (items: object) => ({ type: 'array', items })
const many = (items: object) => object({ items: list(items) })
const digest = { type: 'string', pattern: '^[0-9a-f]{32,64}$' }
const instant = { type: ['string', 'null'] }

const intents = { oneOf: kinds.map(kind => object({ kind: { const: kind.kind }, intent: kind.intentSchema })) }
const plan = {
  type: 'object',
  required: ['title', 'checks', 'effects', 'steps', 'forecast', 'undo'],
  properties: {
    title: text(500),
    checks: list({ type: 'object' }),
    effects: list({ type: 'object' }),
    steps: list({ type: 'object' }),
    forecast: { type: 'object' },
    undo: { type: 'object' },
  },
}
const change = {
  type: 'object',
  required: [
    'id',
    'number',
    'kind',
    'state',
    'title',
    'intent',
    'plan',
    'planDigest',
    'edit',
    'editedBy',
    'differences',
    'madeBy',
    'madeAt',
  ],
  properties: {
    id: idSchema,
    number: { type: 'integer' },
    kind: text(),
    state: { enum: changeStates },
    title: text(500),
    intent: { type: 'object' },
    plan,
    differences: list(text(1000)),
    planDigest: digest,
    edit: { type: 'integer', minimum: 1 },
    editedBy: text(),
    madeBy: text(),
    madeAt: { type: 'string' },
    carriedOutAt: instant,
    carriedOutEstateAt: instant,
    endedAt: instant,
    endedEstateAt: instant,
    tookSeconds: { type: ['number', 'null'] },
    facts: { type: 'object' },
    refusal: { type: ['object', 'null'] },
    stands: { type: ['string', 'null'] },
  },
}
const followed = {
  type: 'object',
  required: ['change', 'journal', 'evidence'],
  properties: {
    change,
    journal: list({ type: 'object' }),
    evidence: list(
      object({
        claim: text(1000),
        holds: { type: 'boolean' },
        measured: { type: 'object' },
        at: { type: 'string' },
        attempt: whole,
      }),
    ),
  },
}
const volumeLine = object({
  id: idSchema,
  name: text(),
  naa: text(),
  systemName: text(),
  poolName: text(),
  sizeBytes: bytesSchema,
  writtenBytes: bytesSchema,
  isThin: { type: 'boolean' },
  state: { enum: ['in use', 'holding'] },
  groupNames: list(text()),
  missingSince: { type: ['string', 'null'] },
})
const auditEntry = object({
  id: { type: 'integer' },
  at: { type: 'string' },
  who: text(),
  address: { type: ['string', 'null'] },
  action: text(),
  subject: text(),
  detail: text(10_000),
  previousHash: { type: 'string', pattern: '^[0-9a-f]{64}$' },
  hash: { type: 'string', pattern: '^[0-9a-f]{64}$' },
})
const administrator = object({ id: idSchema, name: text(), madeAt: { type: 'string' } })
const token = object({ id: idSchema, name: text(), madeAt: { type: 'string' }, usedAt: instant })
const settings = object(
  {
    volumeNaming: text(120),
    holdingDays: { type: 'integer', minimum: 1, maximum: 365 },
    /** `host:port`, or empty. */
    nameServer: { type: 'string', maxLength: 255, pattern: '^([^\\s:]+:\\d{1,5})?$' },
    /** Which addresses may be registered besides those that anybody may: parts of the network as CIDR, one after another. */
    addresses: { type: 'string', maxLength: 2000, pattern: '^[0-9a-fA-F:./\\s,]*$' },
  },
  ['nameServer', 'addresses'],
)
/** A firmware catalogue is drafted as text of up to two million characters. */
const draftBytes = 2_500_000

const table = {
  listSites: { method: 'get', path: '/sites', summary: 'All sites', answers: many(siteSchema) },
  addSite: {
    method: 'post',
    path: '/sites',
    summary: 'Add a site',
    body: object({ name: { type: 'string', minLength: 1, maxLength: 120, pattern: '\\S' } }),
    answers: object({ id: idSchema }),
    status: 201,
  },
  listSystems: { method: 'get', path: '/systems', summary: 'All systems', answers: many(systemSchema) },
  readSystem: {
    method: 'get',
    path: '/systems/{id}',
    summary: 'One system with what stands in it',
    answers: {
      type: 'object',
      required: ['system', 'controllers', 'enclosures', 'drives', 'ports', 'pools'],
      properties: {
        system: systemSchema,
        controllers: list(controllerSchema),
        enclosures: list(enclosureSchema),
        ports: list(portSchema),
        drives: list(driveSchema),
        pools: list(poolSchema),
      },
    },
  },
  listPools: { method: 'get', path: '/pools', summary: 'All pools', answers: many(poolSchema) },
  listDrives: {
    method: 'get',
    path: '/drives',
    summary: 'Drives of one system or of all',
    query: { systemId: idSchema },
    answers: many(driveSchema),
  },
  listVolumes: {
    method: 'get',
    path: '/volumes',
    summary: 'A page of volumes, sorted and filtered at the server',
    query: {
      filter: text(120),
      state: { enum: ['in use', 'holding'] },
      poolId: idSchema,
      sort: { enum: ['name', 'size', 'written'] },
      descending: { enum: ['true', 'false'] },
      offset: whole,
      limit: { type: 'integer', minimum: 1, maximum: 500 },
    },
    answers: object({ total: whole, lines: list(volumeLine) }),
  },
  readVolume: {
    method: 'get',
    path: '/volumes/{id}',
    summary: 'One volume with its neighbours',
    answers: {
      type: 'object',
      required: ['volume', 'pool', 'system', 'mappings', 'missingSince'],
      properties: {
        missingSince: { type: ['string', 'null'] },
        volume: volumeSchema,
        pool: poolSchema,
        system: systemSchema,
        mappings: list(mappingSchema),
      },
    },
  },
  listHosts: { method: 'get', path: '/hosts', summary: 'All hosts', answers: many(hostSchema) },
  listHostGroups: { method: 'get', path: '/host-groups', summary: 'All host groups', answers: many(hostGroupSchema) },
  search: {
    method: 'get',
    path: '/search',
    summary: 'Find objects by name, serial number or WWN',
    query: { text: text(120) },
    answers: many({ type: 'object' }),
  },
  readNetwork: {
    method: 'get',
    path: '/systems/{id}/network',
    summary: 'The nodes of a row, their ports, the switches between them, and the last probe',
    answers: object({
      nodes: list(nodeSchema),
      nodePorts: list(nodePortSchema),
      switches: list(switchSchema),
      switchPorts: list(switchPortSchema),
      probe: { oneOf: [pathProbeSchema, { type: 'null' }] },
    }),
  },
  probePaths: {
    method: 'post',
    path: '/systems/{id}/path-probes',
    summary: 'Probe the paths between all nodes of a row now, with full frames',
    answers: pathProbeSchema,
    status: 201,
  },
  lookUpNames: {
    method: 'post',
    path: '/name-lookups',
    summary: 'Ask the estate’s name server for names and addresses, forward and reverse',
    body: object({ names: { ...list(text()), maxItems: 256 }, addresses: { ...list(text(64)), maxItems: 256 } }),
    answers: many(nameAnswerSchema),
  },
  listFindings: {
    method: 'get',
    path: '/findings',
    summary: 'Findings that stand, of one system or of all',
    query: { systemId: idSchema },
    answers: many({ type: 'object' }),
  },
  identify: {
    method: 'post',
    path: '/identities',
    summary: 'See who answers at a management address, and by which certificate, before it is told anything',
    body: object({ address: text(500) }),
    answers: object({
      address: text(500),
      isEncrypted: { type: 'boolean' },
      certificateFingerprint: { type: ['string', 'null'] },
      certificateTrouble: { type: ['string', 'null'] },
      maker: { type: ['string', 'null'] },
      model: { type: ['string', 'null'] },
      uuid: { type: ['string', 'null'] },
      redfishVersion: text(),
    }),
  },
  lookAt: {
    method: 'post',
    path: '/probes',
    summary:
      'Look at a system whose identity was accepted, before registering it; credentials are kept sealed for a day',
    body: object(
      {
        address: text(500),
        userName: text(),
        password: { type: 'string', maxLength: 500 },
        acceptedFingerprint: { type: 'string', pattern: '^([0-9A-F]{2}(:[0-9A-F]{2}){31})?$' },
        isPlainHttpAccepted: { type: 'boolean' },
      },
      ['acceptedFingerprint', 'isPlainHttpAccepted'],
    ),
    answers: probeSchema,
    status: 201,
  },
  planChange: {
    method: 'post',
    path: '/plans',
    summary: 'Plan an intent without keeping it',
    body: intents,
    bodyBytes: draftBytes,
    right: 'read',
    answers: plan,
  },
  listChanges: {
    method: 'get',
    path: '/changes',
    summary: 'The latest changes',
    query: { state: { enum: changeStates }, before: whole, limit: { type: 'integer', minimum: 1, maximum: 200 } },
    answers: many(change),
  },
  draftChange: {
    method: 'post',
    path: '/changes',
    summary: 'Draft a change',
    body: intents,
    bodyBytes: draftBytes,
    answers: change,
    status: 201,
  },
  readChange: {
    method: 'get',
    path: '/changes/{id}',
    summary: 'Follow a change: its plan, journal and evidence',
    answers: followed,
  },
  alterDraft: {
    method: 'put',
    path: '/changes/{id}',
    summary: 'Give a draft another intent; refused where it is no longer the edit that this one rests on',
    body: object({ intent: { type: 'object' }, edit: { type: 'integer', minimum: 1, maximum: 2_147_483_647 } }),
    bodyBytes: draftBytes,
    answers: change,
  },
  discardDraft: { method: 'delete', path: '/changes/{id}', summary: 'Discard a draft', status: 204 },
  carryOut: {
    method: 'post',
    path: '/changes/{id}/carry-out',
    summary: 'Carry a checked draft out, as it was seen: the digest names its plan, and another plan is refused',
    body: object({ planDigest: digest }),
    answers: change,
    status: 202,
  },
  stopChange: {
    method: 'post',
    path: '/changes/{id}/stop',
    summary: 'Stop a running change at its next safe point',
    answers: change,
    status: 202,
  },
  resumeChange: {
    method: 'post',
    path: '/changes/{id}/resume',
    summary: 'Let a stopped change go on, or prove again one that was not proven',
    answers: change,
    status: 202,
  },
  undoChange: {
    method: 'post',
    path: '/changes/{id}/undo',
    summary: 'Take back what a stopped or unproven change has made',
    answers: change,
    status: 202,
  },
  reverseChange: {
    method: 'post',
    path: '/changes/{id}/reverse',
    summary: 'Draft the change that reverses a proven one',
    answers: change,
    status: 201,
  },
  readSettings: { method: 'get', path: '/settings', summary: 'What is set for the whole estate', answers: settings },
  writeSettings: { method: 'put', path: '/settings', summary: 'Set it', body: settings, answers: settings },
  listAudit: {
    method: 'get',
    path: '/audit',
    summary: 'Who did what, newest first',
    query: {
      before: { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER },
      limit: { type: 'integer', minimum: 1, maximum: 500 },
    },
    answers: many(auditEntry),
  },
  checkAudit: {
    method: 'get',
    path: '/audit/check',
    summary: 'Whether every entry of the record follows from the one before it',
    answers: object({ firstBroken: { type: ['integer', 'null'] } }),
  },
  exportAudit: { method: 'get', path: '/audit.jsonl', summary: 'The whole record as JSON lines, oldest first' },
  listAdministrators: {
    method: 'get',
    path: '/administrators',
    summary: 'All administrators',
    answers: many(administrator),
  },
  addAdministrator: {
    method: 'post',
    path: '/administrators',
    summary: 'Add an administrator',
    right: 'administer',
    body: object({ name: text(63), password: { type: 'string', maxLength: 500 } }),
    answers: object({ id: idSchema }),
    status: 201,
  },
  removeAdministrator: {
    method: 'delete',
    path: '/administrators/{id}',
    summary: 'Remove an administrator and end its sessions',
    right: 'administer',
    status: 204,
  },
  changePassword: {
    method: 'put',
    path: '/password',
    summary: 'Change your own password; your other sessions end',
    body: object({ current: { type: 'string', maxLength: 500 }, wanted: { type: 'string', maxLength: 500 } }),
    status: 204,
  },
  listTokens: { method: 'get', path: '/tokens', summary: 'Your bearer tokens', answers: many(token) },
  makeToken: {
    method: 'post',
    path: '/tokens',
    summary: 'Make a bearer token; it is shown this once',
    body: object({ name: { type: 'string', minLength: 1, maxLength: 80 } }),
    answers: object({ token: text() }),
    status: 201,
  },
  revokeToken: { method: 'delete', path: '/tokens/{id}', summary: 'Withdraw a bearer token', status: 204 },
  firstAdministrator: {
    method: 'post',
    path: '/first-administrator',
    summary: 'Set the first administrator, with the code that the start printed',
    isOpen: true,
    body: object({ code: text(40), name: text(63), password: { type: 'string', maxLength: 500 } }),
    status: 204,
  },
  signIn: {
    method: 'post',
    path: '/session',
    summary: 'Sign in for the interface',
    isOpen: true,
    body: object({ name: text(63), password: { type: 'string', maxLength: 500 } }),
    status: 204,
  },
  signOut: { method: 'delete', path: '/session', summary: 'Sign out', status: 204, isOpen: true },
  events: { method: 'get', path: '/events', summary: 'Server-sent events: which records have changed' },
  openApi: { method: 'get', path: '/openapi.json', summary: 'This document', isOpen: true },
} as const satisfies Readonly<Record<string, Operation>>

export type OperationId = keyof typeof table
export const operations: Readonly<Record<OperationId, Operation>> = table

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
import { changeStates } from '@/core/plan'

/** What each operation of the API takes and answers: the one source of its checks and of the OpenAPI document. */
interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete'
  readonly path: string
  readonly summary: string
  readonly body?: object
  readonly query?: Readonly<Record<string, object>>
  readonly answers?: object
  readonly status?: number
  /** Asked without signing in. */
  readonly isOpen?: true
}

const text = (maxLength = 255) => ({ type: 'string', maxLength })
const object = (properties: Readonly<Record<string, object>>, optional: readonly string[] = []) => ({
  type: 'object',
  additionalProperties: false,
  required: Object.keys(properties).filter(name => !optional.includes(name)),
  properties,
})
const list = (items: object) => ({ type: 'array', items })
const many = (items: object) => object({ items: list(items) })
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
  required: ['id', 'number', 'kind', 'state', 'title', 'intent', 'plan', 'differences', 'madeBy', 'madeAt'],
  properties: {
    id: idSchema,
    number: { type: 'integer' },
    kind: text(),
    state: { enum: changeStates },
    title: text(500),
    intent: { type: 'object' },
    plan,
    differences: list(text(1000)),
    madeBy: text(),
    madeAt: { type: 'string' },
    carriedOutAt: instant,
    carriedOutEstateAt: instant,
    endedAt: instant,
    endedEstateAt: instant,
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
      object({ claim: text(1000), holds: { type: 'boolean' }, measured: { type: 'object' }, at: { type: 'string' } }),
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
})
const administrator = object({ id: idSchema, name: text(), madeAt: { type: 'string' } })
const token = object({ id: idSchema, name: text(), madeAt: { type: 'string' }, usedAt: instant })
const settings = object(
  {
    volumeNaming: text(120),
    holdingDays: { type: 'integer', minimum: 1, maximum: 365 },
    /** `host:port`, or empty. */
    nameServer: { type: 'string', maxLength: 255, pattern: '^([^\\s:]+:\\d{1,5})?$' },
  },
  ['nameServer'],
)
const whole = { type: 'integer', minimum: 0 }

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
      required: ['volume', 'pool', 'system', 'mappings'],
      properties: { volume: volumeSchema, pool: poolSchema, system: systemSchema, mappings: list(mappingSchema) },
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
  lookAt: {
    method: 'post',
    path: '/probes',
    summary: 'Look at a management address before registering it; credentials are kept sealed for a day',
    body: object({ address: text(500), userName: text(), password: { type: 'string', maxLength: 500 } }),
    answers: probeSchema,
    status: 201,
  },
  planChange: {
    method: 'post',
    path: '/plans',
    summary: 'Plan an intent without keeping it',
    body: intents,
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
    summary: 'Give a draft another intent',
    body: object({ intent: { type: 'object' } }),
    answers: change,
  },
  discardDraft: { method: 'delete', path: '/changes/{id}', summary: 'Discard a draft', status: 204 },
  carryOut: {
    method: 'post',
    path: '/changes/{id}/carry-out',
    summary: 'Carry a checked draft out',
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
    summary: 'Let a stopped change go on',
    answers: change,
    status: 202,
  },
  undoChange: {
    method: 'post',
    path: '/changes/{id}/undo',
    summary: 'Take back what a stopped change has made',
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
    body: object({ name: text(63), password: { type: 'string', maxLength: 500 } }),
    answers: object({ id: idSchema }),
    status: 201,
  },
  removeAdministrator: {
    method: 'delete',
    path: '/administrators/{id}',
    summary: 'Remove an administrator and end its sessions',
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
  signOut: { method: 'delete', path: '/session', summary: 'Sign out', status: 204 },
  events: { method: 'get', path: '/events', summary: 'Server-sent events: which records have changed' },
  openApi: { method: 'get', path: '/openapi.json', summary: 'This document', isOpen: true },
} as const satisfies Readonly<Record<string, Operation>>

export type OperationId = keyof typeof table
export const operations: Readonly<Record<OperationId, Operation>> = table

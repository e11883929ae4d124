import {
  bytesSchema,
  controllerSchema,
  driveSchema,
  enclosureSchema,
  idSchema,
  intakeStates,
  mappingSchema,
  poolSchema,
  portSchema,
  systemSchema,
  volumeSchema,
} from '@/core/estate'
import { driveSorts } from '@/core/views'
import type { Operation } from './Operation'
import { list, many, object, text, whole } from './shapes'

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
  className: { type: ['string', 'null'] },
  promises: { enum: ['kept', 'at risk', 'broken', 'not measured', null] },
  application: { type: ['string', 'null'] },
  isImage: { type: 'boolean' },
  follows: { type: 'boolean' },
  growthBytes: { type: ['number', 'null'] },
  groupNames: list(text()),
  shareNames: list(text()),
  missingSince: { type: ['string', 'null'] },
})
const { properties: drive } = driveSchema
const driveLine = object({
  id: idSchema,
  systemId: idSchema,
  systemName: text(),
  standsIn: text(),
  bay: whole,
  serial: text(),
  model: text(),
  firmware: drive.firmware,
  media: drive.media,
  protocol: drive.protocol,
  capacityBytes: bytesSchema,
  intake: { enum: [...intakeStates] },
  poolName: { type: ['string', 'null'] },
  groupIndex: drive.groupIndex,
  wearRatio: drive.wearRatio,
  isLit: { type: 'boolean' },
  bestFor: { enum: ['cache', 'capacity', null] },
  leftOver: drive.leftOver,
  powerOnHours: drive.powerOnHours,
  driveWritesPerDay: drive.driveWritesPerDay,
})
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
/** What stands in the estate, and what is set for it. */
export const estateOperations = {
  addSite: {
    method: 'post',
    path: '/sites',
    summary: 'Add a site',
    body: object({ name: { type: 'string', minLength: 1, maxLength: 120, pattern: '\\S' } }),
    answers: object({ id: idSchema }),
    status: 201,
  },
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
  listVolumes: {
    method: 'get',
    path: '/volumes',
    summary: 'A page of volumes, sorted and filtered at the server',
    query: {
      filter: text(120),
      state: { enum: ['in use', 'holding'] },
      poolId: idSchema,
      classId: idSchema,
      application: text(60),
      sort: { enum: ['name', 'size', 'written'] },
      descending: { enum: ['true', 'false'] },
      offset: whole,
      limit: { type: 'integer', minimum: 1, maximum: 500 },
    },
    answers: object({ total: whole, items: list(volumeLine) }),
  },
  listIntake: {
    method: 'get',
    path: '/intake',
    summary: 'A page of drives as they stand in the intake, sorted and filtered at the server',
    query: {
      filter: text(120),
      state: { enum: [...intakeStates] },
      kind: text(60),
      systemId: idSchema,
      sort: { enum: [...driveSorts] },
      descending: { enum: ['true', 'false'] },
      offset: whole,
      limit: { type: 'integer', minimum: 1, maximum: 500 },
    },
    answers: object({ total: whole, items: list(driveLine) }),
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
  search: {
    method: 'get',
    path: '/search',
    summary: 'Find objects by name, serial number or WWN',
    query: { text: text(120) },
    answers: many({ type: 'object' }),
  },
  listFindings: {
    method: 'get',
    path: '/findings',
    summary: 'Findings that stand, of one system or of all',
    query: { systemId: idSchema },
    answers: many({ type: 'object' }),
  },
  readSettings: { method: 'get', path: '/settings', summary: 'What is set for the whole estate', answers: settings },
  writeSettings: { method: 'put', path: '/settings', summary: 'Set it', body: settings, answers: settings },
} as const satisfies Readonly<Record<string, Operation>>

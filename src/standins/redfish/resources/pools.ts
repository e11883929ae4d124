import {
  badValue,
  blockMoves,
  blockPools,
  poolSnapshotBytes,
  poolWrittenBytes,
  raidTypes,
  type BankEntity,
  type PoolEntity,
  type SimulatedArray,
} from '../../array'
import { idIn, link, root, type Body } from '../body'
import { accepts, placesOf, type Outcome, type Place } from '../Place'
import { longText, reader, reference, references, text } from '../reader'
import type { RowService } from '../RowService'
import { drivePath } from './drives'
import type { FromSchema } from 'json-schema-to-ts'

const snapshotReserve = {
  type: 'object',
  properties: {
    Snapshot: { type: 'object', properties: { AllocatedPercent: { type: 'number', minimum: 0, maximum: 90 } } },
  },
} as const
const newPool = {
  type: 'object',
  required: ['Name', 'SupportedRAIDTypes', 'CapacitySources'],
  properties: {
    Name: text,
    Description: longText,
    SupportedRAIDTypes: { type: 'array', minItems: 1, maxItems: 1, items: { enum: raidTypes } },
    CapacitySources: {
      type: 'array',
      minItems: 1,
      items: {
        type: 'object',
        required: ['ProvidingDrives'],
        properties: { ProvidingDrives: { type: 'object', required: ['Members'], properties: { Members: references } } },
      },
    },
    Capacity: snapshotReserve,
    Links: { type: 'object', properties: { DedicatedSpareDrives: references } },
  },
} as const
const banks = {
  type: 'array',
  minItems: 1,
  items: {
    type: 'object',
    required: ['Number', 'Node', 'Cache', 'Capacity'],
    properties: { Number: { type: 'integer', minimum: 1 }, Node: reference, Cache: reference, Capacity: references },
  },
} as const
const newSpreadPool = {
  type: 'object',
  required: ['Name', 'Oem'],
  properties: {
    Name: text,
    Description: longText,
    Capacity: snapshotReserve,
    Oem: {
      type: 'object',
      required: ['Mirefield'],
      properties: {
        Mirefield: {
          type: 'object',
          required: ['FailureDomain', 'Banks', 'KeepsRebuildReserve'],
          properties: {
            Copies: { type: 'integer', minimum: 2, maximum: 4 },
            DataPieces: { type: 'integer', minimum: 2, maximum: 16 },
            ParityPieces: { type: 'integer', minimum: 1, maximum: 4 },
            FailureDomain: { enum: ['node', 'enclosure', 'rack'] },
            KeepsRebuildReserve: { type: 'boolean' },
            Banks: banks,
          },
        },
      },
    },
  },
} as const
const changedDrives = {
  type: 'object',
  properties: {
    Drives: references,
    Oem: {
      type: 'object',
      properties: {
        Mirefield: {
          type: 'object',
          properties: { Banks: banks, RatePercent: { type: 'number', minimum: 1, maximum: 100 } },
        },
      },
    },
  },
} as const
const readPool = reader<FromSchema<typeof newPool>>(newPool)
const readSpreadPool = reader<FromSchema<typeof newSpreadPool>>(newSpreadPool)

/** Pools of RAID groups; on a row of nodes also those that a cluster spreads. */
export function poolPlaces(array: SimulatedArray, nodes?: RowService): Place[] {
  return placesOf<PoolEntity>({
    path: 'Storage/1/StoragePools/:pool',
    type: 'StoragePool.v1_9_1.StoragePool',
    title: 'Pools',
    members: () => array.all('pools'),
    find: id => array.maybe('pools', id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: each => poolBody(array, each, nodes),
    create: body => (nodes !== undefined && isSpread(body) ? createSpread(nodes, body) : create(array, body)),
    remove: each => (nodes === undefined ? blockPools.removePool(array, each.id) : nodes.pools.removePool(each.id)),
    ...(nodes === undefined
      ? {}
      : {
          actions: {
            AddDrives: {
              accepts: accepts(changedDrives, ({ Oem }, each: PoolEntity) => ({
                task: nodes.pools.addDrives(each.id, (Oem?.Mirefield?.Banks ?? []).map(bankOf), rateOf(Oem)),
              })),
            },
            RemoveDrives: {
              accepts: accepts(changedDrives, ({ Drives, Oem }, each: PoolEntity) => ({
                task: nodes.pools.removeDrives(each.id, (Drives ?? []).map(idIn), rateOf(Oem)),
              })),
            },
          },
        }),
  })
}

const rateOf = (oem: FromSchema<typeof changedDrives>['Oem']) => (oem?.Mirefield?.RatePercent ?? 50) / 100

function create(array: SimulatedArray, body: unknown): Outcome {
  const wanted = readPool(body)
  return {
    task: blockPools.createPool(array, {
      name: wanted.Name,
      description: wanted.Description ?? '',
      raidType: wanted.SupportedRAIDTypes[0] ?? 'RAID6',
      groups: wanted.CapacitySources.map(source => source.ProvidingDrives.Members.map(idIn)),
      spares: (wanted.Links?.DedicatedSpareDrives ?? []).map(idIn),
      snapshotReserveRatio: (wanted.Capacity?.Snapshot?.AllocatedPercent ?? 0) / 100,
    }),
  }
}

const isSpread = (body: unknown) => (body as { Oem?: { Mirefield?: unknown } } | null)?.Oem?.Mirefield !== undefined

function createSpread({ pools }: RowService, body: unknown): Outcome {
  const wanted = readSpreadPool(body)
  const { Copies, DataPieces, ParityPieces, FailureDomain, KeepsRebuildReserve, Banks } = wanted.Oem.Mirefield
  if ((Copies === undefined) === (DataPieces === undefined || ParityPieces === undefined))
    throw badValue('The pool was not made.', 'Give either copies, or data and parity pieces.', 'Name one of both.')
  return {
    task: pools.createPool({
      name: wanted.Name,
      description: wanted.Description ?? '',
      scheme:
        Copies === undefined
          ? { kind: 'erasure', dataPieces: DataPieces ?? 2, parityPieces: ParityPieces ?? 1 }
          : { kind: 'copies', copies: Copies },
      domain: FailureDomain,
      banks: Banks.map(bankOf),
      keepsReserve: KeepsRebuildReserve,
      snapshotReserveRatio: (wanted.Capacity?.Snapshot?.AllocatedPercent ?? 0) / 100,
    }),
  }
}

const bankOf = (bank: FromSchema<typeof banks>[number]): BankEntity => ({
  nodeId: idIn(bank.Node),
  number: bank.Number,
  cache: idIn(bank.Cache),
  capacity: bank.Capacity.map(idIn),
})

function groupsHealth(array: SimulatedArray, pool: PoolEntity): 'Critical' | 'Warning' | 'OK' {
  if (blockMoves.failedWhy(array, pool) !== undefined) return 'Critical'
  return pool.groups.flat().some(id => array.one('drives', id).isFailed) ? 'Warning' : 'OK'
}

function poolBody(array: SimulatedArray, each: PoolEntity, nodes: RowService | undefined): Body {
  const drives = new Map(array.all('drives').map(entity => [entity.id, entity]))
  const driveLink = (id: string) => link(drivePath(drives.get(id) ?? { id, enclosureId: '0' }))
  const { spread } = each
  return {
    Description: each.description,
    SupportedRAIDTypes: spread === null ? [each.raidType] : [],
    ...(spread === null ? {} : { Oem: { Mirefield: spreadBody(each, spread, driveLink) } }),
    Capacity: {
      Data: {
        AllocatedBytes: Number(each.usableBytes),
        ConsumedBytes: Number(poolWrittenBytes(array, each.id)),
        ProvisionedBytes: Number(array.poolProvisionedBytes(each.id)),
      },
      Metadata: { AllocatedBytes: Number(each.metadataBytes) },
      Snapshot: {
        GuaranteedBytes: Number(each.snapshotReserveBytes),
        ConsumedBytes: Number(poolSnapshotBytes(array, each.id)),
      },
    },
    CapacitySources: each.groups.map((group, index) => ({
      '@odata.id': `${root}/Storage/1/StoragePools/${each.id}#/CapacitySources/${index}`,
      '@odata.type': '#Capacity.v1_3_0.CapacitySource',
      Id: `${index}`,
      Name: `RAID group ${index + 1}`,
      ProvidingDrives: { Members: group.map(driveLink) },
    })),
    Links: { DedicatedSpareDrives: each.spares.map(driveLink) },
    Status: {
      State: each.isReady ? 'Enabled' : 'Starting',
      Health: nodes === undefined ? groupsHealth(array, each) : nodes.view.poolHealth(each),
    },
  }
}

/** What only rows of this maker state of a pool: how its pieces are spread. */
function spreadBody(
  pool: PoolEntity,
  spread: NonNullable<PoolEntity['spread']>,
  driveLink: (id: string) => Body,
): Body {
  const { scheme } = spread
  return {
    ...(scheme.kind === 'copies'
      ? { Copies: scheme.copies }
      : { DataPieces: scheme.dataPieces, ParityPieces: scheme.parityPieces }),
    FailureDomain: spread.domain,
    RawBytes: Number(pool.rawBytes),
    RebuildReserveBytes: Number(spread.rebuildReserveBytes),
    StrandedBytes: Number(spread.strandedBytes),
    Banks: spread.banks.map(bank => ({
      Number: bank.number,
      Node: link(`Systems/${bank.nodeId}`),
      Cache: driveLink(bank.cache),
      Capacity: bank.capacity.map(driveLink),
    })),
  }
}

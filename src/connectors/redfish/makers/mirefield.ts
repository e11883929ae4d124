import type { BankWanted } from '@/ports'
import { bytes, compile, optionalText, reference, references, text } from '../schema'
import { fileParts } from './fileParts'
import { endpointPart, signIns } from './signIns'
import type { Maker } from './Maker'

const bank = {
  type: 'object',
  required: ['Number', 'Node', 'Cache', 'Capacity'],
  properties: { Number: { type: 'integer', minimum: 1 }, Node: reference, Cache: reference, Capacity: references },
} as const
const drivePart = {
  type: 'object',
  properties: {
    IsBoot: { type: 'boolean' },
    WritesPerDay: { type: ['number', 'null'] },
    LeftOver: {
      type: ['object', 'null'],
      required: ['System', 'LastUsed', 'Partitions'],
      properties: {
        System: optionalText,
        LastUsed: optionalText,
        Partitions: { type: 'array', items: { type: 'string', maxLength: 200 } },
      },
    },
  },
} as const
const isDrivePart = compile(drivePart)
const computerPart = {
  type: 'object',
  properties: { MostCapacityDrives: { type: 'integer', minimum: 0 }, AgentUri: text },
} as const
const isComputerPart = compile(computerPart)
const interfacePart = {
  type: 'object',
  properties: {
    CarriesStorage: { type: 'boolean' },
    OtherTraffic: { type: 'array', items: text },
    LeaseReserved: { type: 'boolean' },
  },
} as const
const isInterfacePart = compile(interfacePart)
const switchPortPart = {
  type: 'object',
  properties: { VLANs: { type: 'array', items: { type: 'integer' } } },
} as const
const isSwitchPortPart = compile(switchPortPart)
const volumePart = { type: 'object', properties: { LostBytes: bytes } } as const
const isVolumePart = compile(volumePart)
const isSpread = compile({
  type: 'object',
  required: ['FailureDomain', 'RawBytes', 'RebuildReserveBytes', 'StrandedBytes', 'Banks'],
  properties: {
    Copies: { type: 'integer', minimum: 2, maximum: 4 },
    DataPieces: { type: 'integer', minimum: 2, maximum: 16 },
    ParityPieces: { type: 'integer', minimum: 1, maximum: 4 },
    FailureDomain: { enum: ['node', 'enclosure', 'rack'] },
    RawBytes: bytes,
    RebuildReserveBytes: bytes,
    StrandedBytes: bytes,
    Banks: { type: 'array', items: bank },
  },
} as const)
const isWork = compile({
  type: 'object',
  required: ['Work', 'Bytes'],
  properties: { Work: { enum: ['rebuild-pieces', 'move-pieces'] }, Bytes: bytes },
} as const)

/** What the maker's own part of a resource has to be: a resource that bears another cannot be used. */
const parts = {
  drive: drivePart,
  computer: computerPart,
  interface: interfacePart,
  switchPort: switchPortPart,
  volume: volumePart,
  endpoint: endpointPart,
  ...fileParts.parts,
}

const link = (locator: string) => ({ '@odata.id': locator })
const bankBody = (each: BankWanted) => ({
  Number: each.number,
  Node: link(each.nodeLocator),
  Cache: link(each.cacheLocator),
  Capacity: each.capacityLocators.map(link),
})
const percent = (ratio: number) => Math.round(ratio * 100)

/** Arrays and rows of nodes of the maker Mirefield. */
export const mirefield: Maker = {
  ...fileParts,
  ...signIns,
  parts,
  drive(own) {
    const { IsBoot = false, WritesPerDay = null, LeftOver = null } = isDrivePart(own) ? own : {}
    return {
      isBoot: IsBoot,
      driveWritesPerDay: WritesPerDay,
      leftOver:
        LeftOver === null
          ? null
          : { system: LeftOver.System ?? null, lastUsedAt: LeftOver.LastUsed ?? null, partitions: LeftOver.Partitions },
    }
  },
  computer(own) {
    const { MostCapacityDrives = 0, AgentUri = null } = isComputerPart(own) ? own : {}
    return { mostCapacityDrives: MostCapacityDrives, agentAddress: AgentUri }
  },
  interface(own) {
    const { CarriesStorage = false, OtherTraffic = [], LeaseReserved = false } = isInterfacePart(own) ? own : {}
    return { carriesStorage: CarriesStorage, traffic: OtherTraffic, isReserved: LeaseReserved }
  },
  vlans: own => (isSwitchPortPart(own) ? (own.VLANs ?? []) : []),
  lostBytes: own => BigInt(isVolumePart(own) ? (own.LostBytes ?? 0) : 0),
  spread(own) {
    if (!isSpread(own)) return undefined
    const { Copies, DataPieces = 2, ParityPieces = 1 } = own
    return {
      scheme:
        Copies === undefined
          ? { kind: 'erasure', dataPieces: DataPieces, parityPieces: ParityPieces }
          : { kind: 'copies', copies: Copies },
      domain: own.FailureDomain,
      rawBytes: BigInt(own.RawBytes),
      rebuildReserveBytes: BigInt(own.RebuildReserveBytes),
      strandedBytes: BigInt(own.StrandedBytes),
      banks: own.Banks.map(each => ({
        number: each.Number,
        nodeLocator: each.Node['@odata.id'],
        cacheLocator: each.Cache['@odata.id'],
        capacityLocators: each.Capacity.map(drive => drive['@odata.id']),
      })),
    }
  },
  work: own =>
    isWork(own) ? { kind: own.Work === 'rebuild-pieces' ? 'rebuild' : 'move', bytes: BigInt(own.Bytes) } : undefined,
  requests: {
    carriesStorage: isOn => own({ CarriesStorage: isOn }),
    vlans: vlans => own({ VLANs: vlans }),
    spreadPool: ({ scheme, domain, keepsRebuildReserve, banks }) =>
      own({
        ...(scheme.kind === 'copies'
          ? { Copies: scheme.copies }
          : { DataPieces: scheme.dataPieces, ParityPieces: scheme.parityPieces }),
        FailureDomain: domain,
        KeepsRebuildReserve: keepsRebuildReserve,
        Banks: banks.map(bankBody),
      }),
    addDrives: (banks, rateRatio) => own({ Banks: banks.map(bankBody), RatePercent: percent(rateRatio) }),
    removeDrives: rateRatio => own({ RatePercent: percent(rateRatio) }),
  },
}

const own = (part: object) => ({ Oem: { Mirefield: part } })

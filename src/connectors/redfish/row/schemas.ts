import { compile, optionalText, reference, references, status, text } from '../schemas'

/** What rows of nodes state beyond what every storage system does. Sources: DMTF ComputerSystem, EthernetInterface, Port, Switch, Aggregate; and this maker's own parts. */
const head = { '@odata.id': text, Id: text, Name: text } as const
const nullableNumber = { type: ['number', 'null'] } as const

export const isComputer = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'Status'],
  properties: {
    ...head,
    HostName: optionalText,
    Model: optionalText,
    BiosVersion: optionalText,
    HostWatchdogTimer: { type: 'object', properties: { FunctionEnabled: { type: 'boolean' } } },
    MemorySummary: { type: 'object', properties: { TotalSystemMemoryGiB: nullableNumber } },
    EthernetInterfaces: reference,
    Links: { type: 'object', properties: { Chassis: references, ManagedBy: references } },
    Oem: {
      type: 'object',
      properties: {
        Mirefield: {
          type: 'object',
          properties: { MostCapacityDrives: { type: 'integer', minimum: 0 }, AgentUri: text },
        },
      },
    },
    Status: status,
  },
} as const)

export const isEthernetInterface = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'MACAddress'],
  properties: {
    ...head,
    MACAddress: text,
    MTUSize: { type: 'integer', minimum: 0 },
    SpeedMbps: nullableNumber,
    LinkStatus: optionalText,
    VLAN: { type: 'object', properties: { VLANEnable: { type: 'boolean' }, VLANId: { type: 'integer' } } },
    DHCPv4: { type: 'object', properties: { DHCPEnabled: { type: 'boolean' } } },
    DHCPv6: { type: 'object', properties: { OperatingMode: text } },
    IPv4Addresses: {
      type: 'array',
      items: {
        type: 'object',
        required: ['Address'],
        properties: { Address: text, SubnetMask: text, AddressOrigin: optionalText },
      },
    },
    IPv6Addresses: {
      type: 'array',
      items: {
        type: 'object',
        required: ['Address'],
        properties: { Address: text, PrefixLength: { type: 'integer' }, AddressOrigin: optionalText },
      },
    },
    Oem: {
      type: 'object',
      properties: {
        Mirefield: {
          type: 'object',
          properties: {
            CarriesStorage: { type: 'boolean' },
            OtherTraffic: { type: 'array', items: text },
            LeaseReserved: { type: 'boolean' },
          },
        },
      },
    },
  },
} as const)

export const isAdapter = compile({
  type: 'object',
  required: ['@odata.id'],
  properties: { ...head, Ports: reference },
} as const)

export const isEthernetPort = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: {
    ...head,
    CurrentSpeedGbps: nullableNumber,
    LinkStatus: optionalText,
    MaxFrameSize: nullableNumber,
    Ethernet: {
      type: 'object',
      properties: {
        AssociatedMACAddresses: { type: 'array', items: text },
        LLDPReceive: { type: 'object', properties: { ChassisId: optionalText, PortId: optionalText } },
      },
    },
    Oem: {
      type: 'object',
      properties: {
        Mirefield: { type: 'object', properties: { VLANs: { type: 'array', items: { type: 'integer' } } } },
      },
    },
  },
} as const)

export const isSwitchedFabric = compile({
  type: 'object',
  required: ['@odata.id'],
  properties: { ...head, Switches: reference },
} as const)

export const isSwitch = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: { ...head, Model: optionalText, FirmwareVersion: optionalText, Ports: reference },
} as const)

export const isNodeManager = compile({
  type: 'object',
  required: ['@odata.id'],
  properties: {
    ...head,
    DateTime: text,
    Links: { type: 'object', properties: { ManagerForServers: references } },
  },
} as const)

export const isAggregate = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'Elements'],
  properties: { ...head, Description: optionalText, Elements: references, Status: status },
} as const)

export const isAggregationService = compile({
  type: 'object',
  required: ['Aggregates'],
  properties: { Aggregates: reference },
} as const)

export const isLit = compile({
  type: 'object',
  required: ['LocationIndicatorActive'],
  properties: { LocationIndicatorActive: { type: 'boolean' } },
} as const)

const bank = {
  type: 'object',
  required: ['Number', 'Node', 'Cache', 'Capacity'],
  properties: { Number: { type: 'integer', minimum: 1 }, Node: reference, Cache: reference, Capacity: references },
} as const
const bytes = { type: 'integer', minimum: 0, maximum: Number.MAX_SAFE_INTEGER } as const

/** How a pool of a cluster spreads its pieces. */
export const isSpread = compile({
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

export const isPieceWork = compile({
  type: 'object',
  required: ['@odata.id', 'TaskState', 'Oem'],
  properties: {
    ...head,
    TaskState: text,
    StartTime: text,
    EndTime: text,
    PercentComplete: nullableNumber,
    Links: { type: 'object', properties: { CreatedResources: references } },
    Oem: {
      type: 'object',
      required: ['Mirefield'],
      properties: {
        Mirefield: {
          type: 'object',
          required: ['Work', 'Bytes'],
          properties: { Work: { enum: ['rebuild-pieces', 'move-pieces'] }, Bytes: bytes },
        },
      },
    },
  },
} as const)

type Checked<F> = F extends (value: unknown) => value is infer T ? T : never
export type Spread = Checked<typeof isSpread>
export type EthernetInterface = Checked<typeof isEthernetInterface>

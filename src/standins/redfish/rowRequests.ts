import type { FromSchema } from 'json-schema-to-ts'
import { reader, reference, references, text } from './requests'

/** Bodies that a row of nodes accepts besides those of every array. */
const computerChange = {
  type: 'object',
  required: ['HostWatchdogTimer'],
  additionalProperties: false,
  properties: {
    HostWatchdogTimer: {
      type: 'object',
      required: ['FunctionEnabled'],
      properties: { FunctionEnabled: { type: 'boolean' } },
    },
  },
} as const
const timeSource = {
  type: 'object',
  required: ['NTP'],
  additionalProperties: false,
  properties: {
    NTP: { type: 'object', required: ['ProtocolEnabled'], properties: { ProtocolEnabled: { type: 'boolean' } } },
  },
} as const
const addressed = (more: object) =>
  ({
    type: 'array',
    maxItems: 1,
    items: { type: 'object', required: ['Address'], properties: { Address: text, ...more } },
  }) as const
const interfaceChange = {
  type: 'object',
  properties: {
    MTUSize: { type: 'integer' },
    VLAN: {
      type: 'object',
      properties: { VLANEnable: { type: 'boolean' }, VLANId: { type: 'integer', minimum: 1, maximum: 4094 } },
    },
    IPv4StaticAddresses: addressed({ SubnetMask: text }),
    IPv6StaticAddresses: addressed({ PrefixLength: { type: 'integer' } }),
    DHCPv4: { type: 'object', properties: { DHCPEnabled: { type: 'boolean' } } },
    DHCPv6: { type: 'object', properties: { OperatingMode: { enum: ['Stateful', 'Stateless', 'Disabled'] } } },
    Oem: {
      type: 'object',
      properties: { Mirefield: { type: 'object', properties: { CarriesStorage: { type: 'boolean' } } } },
    },
  },
} as const
export interface InterfaceChange {
  readonly MTUSize?: number
  readonly VLAN?: { readonly VLANEnable?: boolean; readonly VLANId?: number }
  readonly IPv4StaticAddresses?: readonly { readonly Address: string; readonly SubnetMask?: string }[]
  readonly IPv6StaticAddresses?: readonly { readonly Address: string; readonly PrefixLength?: number }[]
  readonly DHCPv4?: { readonly DHCPEnabled?: boolean }
  readonly DHCPv6?: { readonly OperatingMode?: 'Stateful' | 'Stateless' | 'Disabled' }
  readonly Oem?: { readonly Mirefield?: { readonly CarriesStorage?: boolean } }
}
const switchPortChange = {
  type: 'object',
  properties: {
    MaxFrameSize: { type: 'integer' },
    Oem: {
      type: 'object',
      properties: {
        Mirefield: {
          type: 'object',
          properties: { VLANs: { type: 'array', items: { type: 'integer', minimum: 1, maximum: 4094 } } },
        },
      },
    },
  },
} as const
const driveChange = {
  type: 'object',
  required: ['LocationIndicatorActive'],
  additionalProperties: false,
  properties: { LocationIndicatorActive: { type: 'boolean' } },
} as const
const erasure = {
  type: 'object',
  required: ['SanitizationType'],
  properties: { SanitizationType: { enum: ['BlockErase', 'Overwrite'] } },
} as const
const union = {
  type: 'object',
  required: ['Name', 'Elements'],
  properties: { Name: text, Description: { type: 'string' }, Elements: { ...references, minItems: 1 } },
} as const
const members = {
  type: 'object',
  required: ['Elements'],
  additionalProperties: false,
  properties: { Elements: { ...references, minItems: 1 } },
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
const clusterPool = {
  type: 'object',
  required: ['Name', 'Oem'],
  properties: {
    Name: text,
    Description: { type: 'string' },
    Capacity: {
      type: 'object',
      properties: {
        Snapshot: { type: 'object', properties: { AllocatedPercent: { type: 'number', minimum: 0, maximum: 90 } } },
      },
    },
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
const drivesChange = {
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

export const readComputer = reader<FromSchema<typeof computerChange>>(computerChange)
export const readTimeSource = reader<FromSchema<typeof timeSource>>(timeSource)
export const readInterface = reader<InterfaceChange>(interfaceChange)
export const readSwitchPort = reader<FromSchema<typeof switchPortChange>>(switchPortChange)
export const readDrive = reader<FromSchema<typeof driveChange>>(driveChange)
export const readErasure = reader<FromSchema<typeof erasure>>(erasure)
export const readUnion = reader<FromSchema<typeof union>>(union)
export const readMembers = reader<FromSchema<typeof members>>(members)
export const readClusterPool = reader<FromSchema<typeof clusterPool>>(clusterPool)
export const readDrives = reader<FromSchema<typeof drivesChange>>(drivesChange)

export type BankBody = FromSchema<typeof banks>[number]

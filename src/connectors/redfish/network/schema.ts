import { compile, head, text, reference, nullableNumber, optionalText, type Checked } from '../schema'
import { ownPartsOf } from '../makers'

/** Interfaces, adapters and switches. Sources: DMTF EthernetInterface, Port, Switch. */
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
    Oem: ownPartsOf('interface'),
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
    Oem: ownPartsOf('switchPort'),
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

export type EthernetInterface = Checked<typeof isEthernetInterface>

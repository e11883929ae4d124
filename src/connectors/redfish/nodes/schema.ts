import { compile, head, text, reference, references, status, nullableNumber, optionalText } from '../schema'
import { ownPartsOf } from '../makers'

/** The computers of a row and their managers. */
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
    Oem: ownPartsOf('computer'),
    Status: status,
  },
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

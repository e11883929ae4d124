import { compile, head, reference, status, optionalText, type Checked } from '../schema'

/** Controllers and their ports. */
export const isController = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: {
    ...head,
    Model: optionalText,
    SerialNumber: optionalText,
    FirmwareVersion: optionalText,
    Status: status,
    Ports: reference,
  },
} as const)

export const isPort = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: {
    ...head,
    PortProtocol: optionalText,
    CurrentSpeedGbps: { type: ['number', 'null'] },
    LinkStatus: optionalText,
  },
} as const)

export type RedfishController = Checked<typeof isController>
export type RedfishPort = Checked<typeof isPort>

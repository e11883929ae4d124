import { ownPartsOf } from '../makers'
import { compile, head, names, optionalText, reference, references, text } from '../schema'

/** The parts of a fabric (DMTF DSP8010, SNIA Swordfish) by which volumes are shown to hosts. */
export const isFabric = compile({
  type: 'object',
  required: ['@odata.id'],
  properties: { ...head, Endpoints: reference, EndpointGroups: reference, Connections: reference },
} as const)

export const isEndpoint = compile({
  type: 'object',
  required: ['@odata.id', 'Identifiers'],
  properties: {
    ...head,
    Identifiers: names,
    Oem: ownPartsOf('endpoint'),
    ConnectedEntities: {
      type: 'array',
      items: { type: 'object', properties: { EntityRole: { type: ['string', 'null'] } } },
    },
    IPTransportDetails: {
      type: 'array',
      items: { type: 'object', properties: { IPv4Address: { type: 'object', properties: { Address: text } } } },
    },
  },
} as const)

export const isEndpointGroup = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: { ...head, Description: optionalText, Endpoints: references },
} as const)

export const isConnection = compile({
  type: 'object',
  required: ['@odata.id', 'VolumeInfo'],
  properties: {
    ...head,
    Description: optionalText,
    VolumeInfo: {
      type: 'array',
      items: {
        type: 'object',
        required: ['Volume'],
        properties: { Volume: reference, LUN: { type: ['integer', 'null'] } },
      },
    },
    Links: { type: 'object', properties: { InitiatorEndpointGroups: references } },
  },
} as const)

import { ownPartsOf } from '../makers'
import { compile, head, text, reference, references, names, optionalText, type Checked } from '../schema'

/** Who the service is and where its parts stand. */
export const isServiceRoot = compile({
  type: 'object',
  required: ['RedfishVersion'],
  properties: {
    RedfishVersion: text,
    ProtocolFeaturesSupported: {
      type: ['object', 'null'],
      properties: {
        TopSkipQuery: { type: ['boolean', 'null'] },
        ExpandQuery: {
          type: ['object', 'null'],
          properties: { ExpandAll: { type: ['boolean', 'null'] }, NoLinks: { type: ['boolean', 'null'] } },
        },
      },
    },
    Links: { type: 'object', properties: { Sessions: reference } },
    UUID: optionalText,
    Vendor: optionalText,
    Product: optionalText,
    ServiceIdentification: optionalText,
    Storage: reference,
    Chassis: reference,
    Managers: reference,
    Fabrics: reference,
    EventService: reference,
    Systems: reference,
    Tasks: reference,
    TelemetryService: reference,
    AggregationService: reference,
  },
} as const)

export const isManager = compile({
  type: 'object',
  properties: { ...head, DateTime: { type: 'string' }, FirmwareVersion: optionalText },
} as const)

export const isStorage = compile({
  type: 'object',
  required: ['@odata.id', 'StoragePools', 'Volumes'],
  properties: {
    ...head,
    Identifiers: names,
    Controllers: reference,
    StoragePools: reference,
    Volumes: reference,
    ConsistencyGroups: reference,
    FileSystems: reference,
    Drives: references,
    Oem: ownPartsOf('storage'),
  },
} as const)

export const isTaskService = compile({
  type: 'object',
  properties: { Tasks: reference },
} as const)

export type RedfishRoot = Checked<typeof isServiceRoot>

import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import type { FromSchema, JSONSchema } from 'json-schema-to-ts'

/**
 * The parts of Redfish (DMTF DSP8010) and Swordfish (SNIA) resources that Wendrel reads. Nothing else is required of a system.
 * Byte counts above 2^53 − 1 have already lost bits as JSON numbers: they are refused, not rounded.
 */
const ajv = new Ajv({ allErrors: false })
type Shape<S> = S extends JSONSchema ? FromSchema<S> : never
export const compile = <const S extends object>(schema: S) =>
  ajv.compile(schema) as unknown as ValidateFunction<Shape<S>>
export const text = { type: 'string', maxLength: 4096 } as const
const bytes = { type: 'integer', minimum: 0, maximum: Number.MAX_SAFE_INTEGER } as const
const id = { type: 'string', minLength: 1, maxLength: 2048 } as const
export const reference = { type: 'object', required: ['@odata.id'], properties: { '@odata.id': id } } as const
export const references = { type: 'array', items: reference } as const
export const status = {
  type: 'object',
  properties: { State: { type: ['string', 'null'] }, Health: { type: ['string', 'null'] } },
} as const
export const names = {
  type: 'array',
  items: {
    type: 'object',
    properties: { DurableName: { type: ['string', 'null'] }, DurableNameFormat: { type: ['string', 'null'] } },
  },
} as const
export const head = { '@odata.id': id, Id: text, Name: text } as const
export const optionalText = { type: ['string', 'null'], maxLength: 4096 } as const

export const isErrorBody = compile({
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      properties: {
        message: text,
        '@Message.ExtendedInfo': {
          type: 'array',
          items: { type: 'object', properties: { Message: text, Resolution: text } },
        },
      },
    },
  },
} as const)

export const isCollection = compile({
  type: 'object',
  required: ['Members'],
  properties: { Members: references, 'Members@odata.nextLink': optionalText },
} as const)

export const isServiceRoot = compile({
  type: 'object',
  required: ['RedfishVersion'],
  properties: {
    RedfishVersion: text,
    ProtocolFeaturesSupported: {
      type: ['object', 'null'],
      properties: {
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
    AggregationService: reference,
  },
} as const)

export const isEventService = compile({
  type: 'object',
  properties: { ServerSentEventUri: optionalText },
} as const)

export const isEventRecord = compile({
  type: 'object',
  properties: {
    Events: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        properties: { OriginOfCondition: { type: 'object', properties: { '@odata.id': id } } },
      },
    },
  },
} as const)

export const isManager = compile({
  type: 'object',
  properties: { ...head, DateTime: { type: 'string' }, FirmwareVersion: optionalText },
} as const)

export const isChassis = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: {
    ...head,
    HeightMm: { type: ['number', 'null'] },
    SerialNumber: optionalText,
    Location: { type: 'object', properties: { Placement: { type: 'object', properties: { Rack: optionalText } } } },
    Links: { type: 'object', properties: { ComputerSystems: references } },
    Drives: reference,
    Sensors: reference,
  },
} as const)

export const isDrive = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'MediaType', 'CapacityBytes', 'SerialNumber', 'Status'],
  properties: {
    ...head,
    MediaType: { enum: ['HDD', 'SSD'] },
    Protocol: { type: ['string', 'null'] },
    CapacityBytes: bytes,
    RotationSpeedRPM: { type: ['number', 'null'] },
    FormFactor: { type: ['string', 'null'] },
    Model: optionalText,
    SerialNumber: { type: 'string', minLength: 1, maxLength: 255 },
    Revision: optionalText,
    Identifiers: names,
    PredictedMediaLifeLeftPercent: { type: ['number', 'null'] },
    HotspareType: { type: ['string', 'null'] },
    FailurePredicted: { type: ['boolean', 'null'] },
    PhysicalLocation: {
      type: 'object',
      properties: { PartLocation: { type: 'object', properties: { LocationOrdinalValue: { type: 'integer' } } } },
    },
    LocationIndicatorActive: { type: ['boolean', 'null'] },
    Oem: {
      type: 'object',
      properties: {
        Mirefield: {
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
        },
      },
    },
    Status: status,
    Metrics: { type: 'object', properties: { PowerOnHours: { type: ['number', 'null'] } } },
    Links: { type: 'object', properties: { StoragePools: references, Chassis: reference } },
  },
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
    Drives: references,
  },
} as const)

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

/** Links that stand here, or a link to where they stand. */
const linkList = { type: 'object', properties: { '@odata.id': id, Members: references } } as const
const capacitySource = {
  type: 'object',
  properties: { '@odata.id': id, ProvidingDrives: linkList, ProvidingPools: linkList },
} as const
export const isCapacitySource = compile(capacitySource)
export const isLinkList = compile({
  type: 'object',
  required: ['Members'],
  properties: { Members: references, 'Members@odata.nextLink': optionalText },
} as const)

const capacityPart = {
  type: 'object',
  properties: { AllocatedBytes: bytes, ConsumedBytes: bytes, ProvisionedBytes: bytes, GuaranteedBytes: bytes },
} as const

export const isPool = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'Capacity', 'CapacitySources', 'Status'],
  properties: {
    ...head,
    Description: optionalText,
    SupportedRAIDTypes: { type: ['array', 'null'], items: { type: 'string' } },
    Capacity: {
      type: 'object',
      required: ['Data'],
      properties: { Data: capacityPart, Metadata: capacityPart, Snapshot: capacityPart },
    },
    CapacitySources: { type: 'array', items: capacitySource },
    Links: { type: 'object', properties: { DedicatedSpareDrives: references } },
    Status: status,
  },
} as const)

export const isVolume = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'CapacityBytes', 'Identifiers', 'CapacitySources'],
  properties: {
    ...head,
    /** What an administrator has named it; `Name` may be the system's own. */
    DisplayName: optionalText,
    Description: optionalText,
    CapacityBytes: bytes,
    ProvisioningPolicy: { type: ['string', 'null'] },
    Identifiers: names,
    Capacity: { type: 'object', properties: { Data: capacityPart } },
    Oem: { type: 'object', properties: { Mirefield: { type: 'object', properties: { LostBytes: bytes } } } },
    CapacitySources: { type: 'array', minItems: 1, items: capacitySource },
    Status: status,
  },
} as const)

export const isTask = compile({
  type: 'object',
  required: ['@odata.id', 'TaskState'],
  properties: {
    ...head,
    TaskState: text,
    StartTime: optionalText,
    EndTime: optionalText,
    PercentComplete: { type: ['number', 'null'] },
    Payload: { type: 'object', properties: { JsonBody: optionalText } },
    Messages: { type: 'array', items: { type: 'object', properties: { Message: text } } },
    Links: { type: 'object', properties: { CreatedResources: references } },
  },
} as const)

export const isSensor = compile({
  type: 'object',
  required: ['Name'],
  properties: {
    ...head,
    Reading: { type: ['number', 'null'] },
    ReadingUnits: optionalText,
    Thresholds: {
      type: 'object',
      properties: { UpperCaution: { type: 'object', properties: { Reading: { type: ['number', 'null'] } } } },
    },
  },
} as const)

type Checked<F> = F extends (value: unknown) => value is infer T ? T : never
export type RedfishSource = Checked<typeof isCapacitySource>
export type RedfishRoot = Checked<typeof isServiceRoot>
export type RedfishDrive = Checked<typeof isDrive>
export type RedfishPool = Checked<typeof isPool>
export type RedfishVolume = Checked<typeof isVolume>
export type RedfishChassis = Checked<typeof isChassis>

import { compile, head, bytes, reference, references, status, names, optionalText, type Checked } from '../schema'
import { ownPartsOf } from '../makers'

/** Chassis with their drives and sensors. */
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
    Oem: ownPartsOf('drive'),
    Status: status,
    Metrics: {
      type: 'object',
      properties: {
        PowerOnHours: { type: ['number', 'null'] },
        CorrectableIOReadErrorCount: { type: ['number', 'null'] },
        CorrectableIOWriteErrorCount: { type: ['number', 'null'] },
        UncorrectableIOReadErrorCount: { type: ['number', 'null'] },
        UncorrectableIOWriteErrorCount: { type: ['number', 'null'] },
      },
    },
    Links: { type: 'object', properties: { StoragePools: references, Chassis: reference } },
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

export const isLit = compile({
  type: 'object',
  required: ['LocationIndicatorActive'],
  properties: { LocationIndicatorActive: { type: 'boolean' } },
} as const)

export type RedfishDrive = Checked<typeof isDrive>
export type RedfishChassis = Checked<typeof isChassis>

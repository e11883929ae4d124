import { ownPartsOf } from '../makers'
import { grantList } from './grants'
import { bytes, compile, head, optionalText, reference, references, text, type Checked } from '../schema'

/** A file service; the standard has no resource for it, so it stands where its maker says. */
export const isFileService = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'Instances'],
  properties: {
    ...head,
    Description: optionalText,
    NameServers: { type: 'array', maxItems: 16, items: text },
    SearchSuffixes: { type: 'array', maxItems: 16, items: text },
    Directory: {
      type: ['object', 'null'],
      required: ['BaseDn'],
      properties: {
        BaseDn: { type: 'string', minLength: 1, maxLength: 1000 },
        Account: { type: ['string', 'null'], maxLength: 1000 },
      },
    },
    Grants: grantList,
    Instances: {
      type: 'array',
      maxItems: 64,
      items: {
        type: 'object',
        required: ['Unit', 'Address', 'PrefixLength'],
        properties: {
          Unit: { type: 'string', minLength: 1, maxLength: 255 },
          Address: { type: 'string', maxLength: 64 },
          PrefixLength: { type: 'integer', minimum: 0, maximum: 128 },
          StandsOn: { type: ['string', 'null'], maxLength: 255 },
        },
      },
    },
  },
} as const)

/** Source: Swordfish, FileSystem. */
export const isFileSystem = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: {
    ...head,
    Description: optionalText,
    CapacitySources: {
      type: 'array',
      items: {
        type: 'object',
        properties: { ProvidingVolumes: { type: 'object', properties: { Members: references } } },
      },
    },
    Capacity: {
      type: 'object',
      properties: { Data: { type: 'object', properties: { ConsumedBytes: bytes, ProvisionedBytes: bytes } } },
    },
    ExportedShares: reference,
  },
} as const)

/** Source: Swordfish, FileShare; which hosts, and whose the root is, the makers state. */
export const isFileShare = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'FileSharePath'],
  properties: {
    ...head,
    Description: optionalText,
    FileSharePath: { type: 'string', minLength: 1, maxLength: 255 },
    FileSharingProtocols: { type: 'array', items: text },
    Links: {
      type: 'object',
      properties: {
        FileSystem: reference,
        Oem: { type: 'object', properties: { FileService: reference } },
      },
    },
    Oem: ownPartsOf('share'),
  },
} as const)

export type RedfishFileService = Checked<typeof isFileService>
export type RedfishFileSystem = Checked<typeof isFileSystem>
export type RedfishFileShare = Checked<typeof isFileShare>

import { longText, text } from '../reader'
import { grantList } from './grants'
import { root } from './roots'

const id = { type: 'integer', minimum: 0, maximum: 4_294_967_294 } as const
const rules = {
  type: 'array',
  maxItems: 1000,
  items: {
    type: 'object',
    required: ['Client', 'Access', 'Squash', 'AnonymousUid', 'AnonymousGid', 'Flavours'],
    properties: {
      Client: text,
      Access: { enum: ['rw', 'ro', 'none'] },
      Squash: { enum: ['none', 'root', 'all'] },
      AnonymousUid: id,
      AnonymousGid: id,
      Flavours: { type: 'array', items: { enum: ['sys', 'krb5', 'krb5i', 'krb5p'] } },
    },
  },
} as const
const bytesOrNone = { type: ['integer', 'null'], minimum: 0, maximum: Number.MAX_SAFE_INTEGER } as const
const quotaPath = { type: 'string', pattern: '^/' } as const
const quotas = {
  type: 'array',
  maxItems: 1000,
  items: {
    type: 'object',
    required: ['Path', 'Of'],
    properties: {
      Path: quotaPath,
      Of: { enum: ['tree', 'each directory', 'user', 'group', 'project'] },
      Id: { ...id, type: ['integer', 'null'] },
      SoftBytes: bytesOrNone,
      HardBytes: bytesOrNone,
      GraceDays: { type: 'integer', minimum: 0, maximum: 3650 },
      Project: {
        type: 'object',
        required: ['Name', 'AlsoAt'],
        properties: {
          Name: { ...text, minLength: 1 },
          AlsoAt: { type: 'array', maxItems: 50, items: quotaPath },
        },
      },
    },
  },
} as const
const fileRules = {
  type: 'array',
  maxItems: 200,
  items: {
    type: 'object',
    required: ['Pattern', 'Content', 'Verdict'],
    properties: {
      Pattern: text,
      Content: { enum: ['any', 'audio', 'video', 'picture', 'archive', 'program', 'document'] },
      Verdict: { enum: ['deny', 'report'] },
    },
  },
} as const
const ownPart = {
  type: 'object',
  properties: {
    ExportRules: rules,
    Grants: grantList,
    Root: root,
    Quotas: quotas,
    FileRules: fileRules,
    SnapshotDirectory: { type: 'object', required: ['IsShown'], properties: { IsShown: { type: 'boolean' } } },
  },
} as const
const oem = { type: 'object', properties: { Mirefield: ownPart, Ferrow: ownPart } } as const
/** A share as it is asked for. */
export const newShare = {
  type: 'object',
  required: ['Name', 'FileSharePath', 'FileSharingProtocols', 'Links', 'Oem'],
  properties: {
    Name: text,
    Description: longText,
    FileSharePath: { type: 'string', pattern: '^/[A-Za-z0-9._/-]{1,200}$' },
    FileSharingProtocols: { type: 'array', minItems: 1, items: { enum: ['NFSv3', 'NFSv4_1', 'NFSv4_2', 'SMBv3_1_1'] } },
    Links: {
      type: 'object',
      required: ['Oem'],
      properties: {
        Oem: {
          type: 'object',
          required: ['FileService'],
          properties: { FileService: { type: 'object', required: ['@odata.id'], properties: { '@odata.id': text } } },
        },
      },
    },
    Oem: oem,
  },
} as const
/** What of a share may be changed. */
export const changedShare = {
  type: 'object',
  required: ['Oem'],
  additionalProperties: false,
  properties: { Oem: oem },
} as const

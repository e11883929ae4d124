import type { ShareLimitsWanted, ShareRightsWanted, ShareSeen } from '@/ports'
import { grantList, grantsOf, grantsPart } from '../files/grants'
import { bytes, compile, reference } from '../schema'
import type { Maker } from './Maker'

const bytesOrNone = { ...bytes, type: ['integer', 'null'] } as const
const id = { type: 'integer', minimum: 0, maximum: 4_294_967_294 } as const
const sharePart = {
  type: 'object',
  properties: {
    ExportRules: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        required: ['Client', 'Access', 'Squash', 'AnonymousUid', 'AnonymousGid', 'Flavours'],
        properties: {
          Client: { type: 'string', maxLength: 255 },
          Access: { enum: ['rw', 'ro', 'none'] },
          Squash: { enum: ['none', 'root', 'all'] },
          AnonymousUid: id,
          AnonymousGid: id,
          Flavours: { type: 'array', maxItems: 4, items: { enum: ['sys', 'krb5', 'krb5i', 'krb5p'] } },
        },
      },
    },
    Grants: grantList,
    /** Of its file service: they count for each share of it. */
    ServiceGrants: grantList,
    Quotas: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        required: ['Path', 'Of'],
        properties: {
          Path: { type: 'string', minLength: 1, maxLength: 1000 },
          Of: { enum: ['tree', 'each directory', 'user', 'group', 'project'] },
          Id: { type: ['integer', 'null'], minimum: 0, maximum: 4_294_967_294 },
          SoftBytes: bytesOrNone,
          HardBytes: bytesOrNone,
          GraceDays: { type: 'integer', minimum: 0, maximum: 3650 },
          Project: {
            type: 'object',
            required: ['Name', 'AlsoAt'],
            properties: {
              Name: { type: 'string', minLength: 1, maxLength: 60 },
              AlsoAt: { type: 'array', maxItems: 50, items: { type: 'string', minLength: 1, maxLength: 1000 } },
            },
          },
        },
      },
    },
    FileRules: {
      type: 'array',
      maxItems: 200,
      items: {
        type: 'object',
        required: ['Pattern', 'Content', 'Verdict'],
        properties: {
          Pattern: { type: 'string', maxLength: 255 },
          Content: { enum: ['any', 'audio', 'video', 'picture', 'archive', 'program', 'document'] },
          Verdict: { enum: ['deny', 'report'] },
        },
      },
    },
    SnapshotDirectory: {
      type: 'object',
      required: ['Name', 'IsShown'],
      properties: { Name: { type: 'string', minLength: 1, maxLength: 255 }, IsShown: { type: 'boolean' } },
    },
    QuotaUsage: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        required: ['Quota', 'Of', 'UsedBytes'],
        properties: {
          Quota: { type: 'integer', minimum: 0 },
          Of: { type: 'string', maxLength: 1100 },
          UsedBytes: bytes,
          OverSoftSince: { type: ['string', 'null'], maxLength: 40 },
        },
      },
    },
    Root: {
      type: 'object',
      required: ['Uid', 'Gid', 'Mode'],
      properties: {
        Uid: id,
        Gid: id,
        Mode: { type: 'string', pattern: '^[0-7]{4}$' },
        AccessList: {
          type: 'array',
          maxItems: 100,
          items: {
            type: 'object',
            required: ['Type', 'Who', 'Rights'],
            properties: {
              Type: { enum: ['Allow', 'Deny'] },
              Who: { type: 'string', minLength: 1, maxLength: 20 },
              Rights: { type: 'array', minItems: 1, maxItems: 2, items: { enum: ['Read', 'Write'] } },
              IsInherited: { type: 'boolean' },
            },
          },
        },
      },
    },
  },
} as const
const isSharePart = compile(sharePart)
const storagePart = {
  type: 'object',
  properties: {
    FileServices: reference,
    FileServiceUnits: { type: 'array', maxItems: 64, items: { type: 'string', maxLength: 255 } },
  },
} as const
const isStoragePart = compile(storagePart)

/** Which hosts, and whose the root is: what makers that serve files state alike of shares and of their storage. */
export const fileParts = {
  parts: { share: sharePart, storage: storagePart },
  fileService: own => {
    const { FileServices, FileServiceUnits = [] } = isStoragePart(own) ? own : {}
    return FileServices === undefined ? undefined : { locator: FileServices['@odata.id'], units: FileServiceUnits }
  },
  shareRights: (own): ShareRightsWanted | undefined => {
    const { ExportRules, Grants = [], Root } = isSharePart(own) ? own : {}
    if (ExportRules === undefined || Root === undefined) return undefined
    return {
      ownerUid: Root.Uid,
      ownerGid: Root.Gid,
      mode: Root.Mode,
      acl: (Root.AccessList ?? []).map(({ Type, Who, Rights, IsInherited }) => ({
        kind: Type === 'Allow' ? ('allow' as const) : ('deny' as const),
        who: Who,
        may:
          new Set(Rights).size === 2
            ? ('both' as const)
            : Rights[0] === 'Read'
              ? ('read' as const)
              : ('write' as const),
        ...(IsInherited === true ? { isInherited: true } : {}),
      })),
      rules: ExportRules.map(each => ({
        client: each.Client,
        access: each.Access,
        squash: each.Squash,
        anonUid: each.AnonymousUid,
        anonGid: each.AnonymousGid,
        flavours: each.Flavours,
      })),
      grants: grantsOf(Grants),
    }
  },
  serviceGrants: own => grantsOf(isSharePart(own) ? own.ServiceGrants : undefined),
  shareLimits: (own): Pick<ShareSeen, 'quotas' | 'fileRules' | 'quotaUsage'> => {
    const { Quotas = [], FileRules = [], QuotaUsage = [] } = isSharePart(own) ? own : {}
    return {
      quotas: Quotas.map(each => ({
        path: each.Path,
        of: each.Of,
        id: each.Id ?? null,
        softBytes: each.SoftBytes == null ? null : `${each.SoftBytes}`,
        hardBytes: each.HardBytes == null ? null : `${each.HardBytes}`,
        graceDays: each.GraceDays ?? 0,
        ...(each.Project === undefined ? {} : { project: { name: each.Project.Name, alsoAt: each.Project.AlsoAt } }),
      })),
      fileRules: FileRules.map(each => ({ pattern: each.Pattern, content: each.Content, verdict: each.Verdict })),
      quotaUsage: QuotaUsage.map(each => ({
        index: each.Quota,
        key: each.Of,
        usedBytes: `${each.UsedBytes}`,
        overSoftSince: instantOf(each.OverSoftSince),
      })),
    }
  },
  snapshotDirectory: own => {
    const stated = isSharePart(own) ? own.SnapshotDirectory : undefined
    return stated === undefined ? undefined : { name: stated.Name, isShown: stated.IsShown }
  },
  snapshotDirectoryPart: (isShown: boolean) => ({ SnapshotDirectory: { IsShown: isShown } }),
  limitsPart: ({ quotas, fileRules }: ShareLimitsWanted) => ({
    Quotas: quotas.map(each => ({
      Path: each.path,
      Of: each.of,
      Id: each.id,
      SoftBytes: each.softBytes === null ? null : Number(each.softBytes),
      HardBytes: each.hardBytes === null ? null : Number(each.hardBytes),
      GraceDays: each.graceDays,
      ...(each.project === undefined ? {} : { Project: { Name: each.project.name, AlsoAt: each.project.alsoAt } }),
    })),
    FileRules: fileRules.map(each => ({ Pattern: each.pattern, Content: each.content, Verdict: each.verdict })),
  }),
  sharePart: ({ ownerUid, ownerGid, mode, acl, rules, grants = [] }: ShareRightsWanted) => ({
    ExportRules: rules.map(each => ({
      Client: each.client,
      Access: each.access,
      Squash: each.squash,
      AnonymousUid: each.anonUid,
      AnonymousGid: each.anonGid,
      Flavours: each.flavours,
    })),
    Grants: grantsPart(grants),
    Root: {
      Uid: ownerUid,
      Gid: ownerGid,
      Mode: mode,
      AccessList: acl.map(({ kind, who, may, isInherited }) => ({
        Type: kind === 'allow' ? 'Allow' : 'Deny',
        Who: who,
        Rights: may === 'both' ? ['Read', 'Write'] : [may === 'read' ? 'Read' : 'Write'],
        ...(isInherited === true ? { IsInherited: true } : {}),
      })),
    },
  }),
} as const satisfies Maker

const instantOf = (text: string | null | undefined) =>
  text == null || Number.isNaN(Date.parse(text)) ? null : new Date(text).toISOString()

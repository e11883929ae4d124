import type { FileShareEntity, ShareGrantEntity, ShareLimitsEntity, SimulatedArray } from '../../array'
import { fileShares, limitUsage, noLimits } from '../../files'
import { idIn, link, resource, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { longText, text } from '../reader'
import { fileServicesPath } from './fileServices'

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
const root = {
  type: 'object',
  required: ['Uid', 'Gid', 'Mode'],
  properties: { Uid: id, Gid: id, Mode: { type: 'string', pattern: '^[0-7]{4}$' } },
} as const
const bytesOrNone = { type: ['integer', 'null'], minimum: 0, maximum: Number.MAX_SAFE_INTEGER } as const
const quotas = {
  type: 'array',
  maxItems: 1000,
  items: {
    type: 'object',
    required: ['Path', 'Of'],
    properties: {
      Path: { type: 'string', pattern: '^/' },
      Of: { enum: ['tree', 'each directory', 'user', 'group'] },
      Id: { ...id, type: ['integer', 'null'] },
      SoftBytes: bytesOrNone,
      HardBytes: bytesOrNone,
      GraceDays: { type: 'integer', minimum: 0, maximum: 3650 },
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
const grants = {
  type: 'array',
  maxItems: 1000,
  items: {
    type: 'object',
    required: ['Who', 'Right'],
    properties: { Who: text, Name: longText, Right: { enum: ['none', 'read', 'change', 'full'] } },
  },
} as const
const ownPart = {
  type: 'object',
  properties: { ExportRules: rules, Grants: grants, Root: root, Quotas: quotas, FileRules: fileRules },
} as const
const oem = { type: 'object', properties: { Mirefield: ownPart, Ferrow: ownPart } } as const
const newShare = {
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
const changedShare = {
  type: 'object',
  required: ['Oem'],
  additionalProperties: false,
  properties: { Oem: oem },
} as const

const shareType = 'FileShare.v1_3_0.FileShare'
export const fileSystemPath = (fileSystemId: string) => `Storage/1/FileSystems/${fileSystemId}`

type Own = NonNullable<ReturnType<typeof ownOf>>
interface Owned {
  readonly Mirefield?: OwnPart
  readonly Ferrow?: OwnPart
}
interface OwnPart {
  readonly ExportRules?: readonly {
    readonly Client: string
    readonly Access: 'rw' | 'ro' | 'none'
    readonly Squash: 'none' | 'root' | 'all'
    readonly AnonymousUid: number
    readonly AnonymousGid: number
    readonly Flavours: readonly string[]
  }[]
  readonly Grants?: readonly {
    readonly Who: string
    readonly Name?: string
    readonly Right: ShareGrantEntity['right']
  }[]
  readonly Root?: { readonly Uid: number; readonly Gid: number; readonly Mode: string }
  readonly Quotas?: readonly {
    readonly Path: string
    readonly Of: ShareLimitsEntity['quotas'][number]['of']
    readonly Id?: number | null
    readonly SoftBytes?: number | null
    readonly HardBytes?: number | null
    readonly GraceDays?: number
  }[]
  readonly FileRules?: readonly {
    readonly Pattern: string
    readonly Content: ShareLimitsEntity['fileRules'][number]['content']
    readonly Verdict: 'deny' | 'report'
  }[]
}

const bytesText = (bytes: number | null | undefined) => (bytes == null ? null : `${bytes}`)

/** What a maker's own part wants of a share's limits. */
const limitsOf = ({ Quotas, FileRules }: OwnPart) => ({
  ...(Quotas === undefined
    ? {}
    : {
        quotas: Quotas.map(each => ({
          path: each.Path,
          of: each.Of,
          id: each.Id ?? null,
          softBytes: bytesText(each.SoftBytes),
          hardBytes: bytesText(each.HardBytes),
          graceDays: each.GraceDays ?? 0,
        })),
      }),
  ...(FileRules === undefined
    ? {}
    : {
        fileRules: FileRules.map(each => ({ pattern: each.Pattern, content: each.Content, verdict: each.Verdict })),
      }),
})

/** What a share states of its limits, and of what has been written of each. */
function limitsBody(array: SimulatedArray, { limits = noLimits, fileSystemId }: FileShareEntity): Body {
  const files = fileShares.readFileSystem(array, fileSystemId).superblock?.files ?? []
  return {
    Quotas: limits.quotas.map(each => ({
      Path: each.path,
      Of: each.of,
      Id: each.id,
      SoftBytes: each.softBytes === null ? null : Number(each.softBytes),
      HardBytes: each.hardBytes === null ? null : Number(each.hardBytes),
      GraceDays: each.graceDays,
    })),
    FileRules: limits.fileRules.map(each => ({ Pattern: each.pattern, Content: each.content, Verdict: each.verdict })),
    QuotaUsage: limitUsage(limits, files)
      .slice(0, 1000)
      .map(({ index, of, bytes }) => {
        const since = limits.overSoft[`${index}/${of}`]
        return {
          Quota: index,
          Of: of,
          UsedBytes: bytes,
          OverSoftSince: since === undefined ? null : new Date(since).toISOString(),
        }
      }),
  }
}

/** What the maker's own part of a request wants. */
function ownOf({ Mirefield, Ferrow }: Owned) {
  const own = Mirefield ?? Ferrow ?? {}
  const { ExportRules, Grants, Root } = own
  return {
    limits: limitsOf(own),
    ...(ExportRules === undefined
      ? {}
      : {
          rules: ExportRules.map(each => ({
            client: each.Client,
            access: each.Access,
            squash: each.Squash,
            anonUid: each.AnonymousUid,
            anonGid: each.AnonymousGid,
            flavours: each.Flavours,
          })),
        }),
    ...(Grants === undefined
      ? {}
      : { grants: Grants.map(({ Who, Name = '', Right }) => ({ who: Who, name: Name, right: Right })) }),
    ...(Root === undefined ? {} : { root: { uid: Root.Uid, gid: Root.Gid, mode: Root.Mode } }),
  }
}
const nobodyYet: Required<Own> = { rules: [], grants: [], root: { uid: 0, gid: 0, mode: '0755' }, limits: {} }

/** What of file systems hosts may mount. Source: Swordfish, FileShare; the rules and limits are the makers' own. */
export function sharePlaces(array: SimulatedArray): Place[] {
  const maker = array.model.maker
  const of = (ids: Readonly<Record<string, string>>) => array.maybe('fileSystems', ids['fileSystem'] ?? '')
  const body = (each: FileShareEntity): Body => {
    const { superblock } = fileShares.readFileSystem(array, each.fileSystemId)
    const { uid, gid, mode } = superblock?.root ?? nobodyYet.root
    return {
      Description: each.description,
      FileSharePath: each.path,
      FileSharingProtocols: each.protocols,
      Status: { State: 'Enabled', Health: 'OK' },
      Links: {
        FileSystem: link(fileSystemPath(each.fileSystemId)),
        Oem: { FileService: link(`${fileServicesPath}/${each.fileServiceId}`) },
      },
      Oem: {
        [maker]: {
          ExportRules: each.rules.map(rule => ({
            Client: rule.client,
            Access: rule.access,
            Squash: rule.squash,
            AnonymousUid: rule.anonUid,
            AnonymousGid: rule.anonGid,
            Flavours: rule.flavours,
          })),
          Grants: (each.grants ?? []).map(({ who, name, right }) => ({ Who: who, Name: name, Right: right })),
          Root: { Uid: uid, Gid: gid, Mode: mode },
          ...limitsBody(array, each),
        },
      },
    }
  }
  return placesOf<FileShareEntity>({
    path: 'Storage/1/FileSystems/:fileSystem/ExportedFileShares/:share',
    type: shareType,
    title: 'Shares',
    members: ids =>
      of(ids) === undefined
        ? undefined
        : array.all('fileShares').filter(each => each.fileSystemId === ids['fileSystem']),
    idOf: each => each.id,
    nameOf: each => each.name,
    body,
    create: accepts(newShare, (wanted, _none, ids) => {
      const { rules: exported, grants: granted, root: rootOwner } = { ...nobodyYet, ...ownOf(wanted.Oem as Owned) }
      const made = fileShares.makeShare(array, {
        name: wanted.Name,
        description: wanted.Description ?? '',
        fileSystemId: ids['fileSystem'] ?? '',
        fileServiceId: idIn(wanted.Links.Oem.FileService),
        path: wanted.FileSharePath,
        protocols: wanted.FileSharingProtocols,
        rules: exported,
        grants: granted,
        root: rootOwner,
      })
      const at = `${fileSystemPath(made.fileSystemId)}/ExportedFileShares/${made.id}`
      return { made: resource(at, shareType, made.id, made.name, body(made)) }
    }),
    change: accepts(changedShare, ({ Oem }, each: FileShareEntity) => {
      fileShares.setShare(array, each.id, ownOf(Oem as Owned))
      return undefined
    }),
    remove: each => fileShares.removeShare(array, each.id),
  })
}

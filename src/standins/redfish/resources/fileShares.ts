import type { FileShareEntity, ShareLimitsEntity, SimulatedArray } from '../../array'
import { earlier, fileShares, limitUsage, noLimits } from '../../files'
import { idIn, link, resource, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { fileServicesPath } from './fileServices'
import { changedShare, newShare } from './fileShareSchemas'
import { grantsBody, grantsIn, type GrantWanted } from './grants'
import { rootBody, rootIn, type RootWanted } from './roots'

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
  readonly Grants?: readonly GrantWanted[]
  readonly Root?: RootWanted
  readonly Quotas?: readonly {
    readonly Path: string
    readonly Of: ShareLimitsEntity['quotas'][number]['of']
    readonly Id?: number | null
    readonly SoftBytes?: number | null
    readonly HardBytes?: number | null
    readonly GraceDays?: number
    readonly Project?: { readonly Name: string; readonly AlsoAt: readonly string[] }
  }[]
  readonly SnapshotDirectory?: { readonly IsShown: boolean }
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
          ...(each.Project === undefined ? {} : { project: { name: each.Project.Name, alsoAt: each.Project.AlsoAt } }),
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
      ...(each.project === undefined ? {} : { Project: { Name: each.project.name, AlsoAt: each.project.alsoAt } }),
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
  const { ExportRules, Grants, Root, SnapshotDirectory } = own
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
    ...(Grants === undefined ? {} : { grants: grantsIn(Grants) }),
    ...(Root === undefined ? {} : { root: rootIn(Root) }),
    ...(SnapshotDirectory === undefined ? {} : { showsSnapshots: SnapshotDirectory.IsShown }),
  }
}

const nobodyYet = { rules: [], grants: [], root: { uid: 0, gid: 0, mode: '0755' } } satisfies Omit<Own, 'limits'>

function shareBody(array: SimulatedArray, each: FileShareEntity): Body {
  const { superblock } = fileShares.readFileSystem(array, each.fileSystemId)
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
      [array.model.maker]: {
        ExportRules: each.rules.map(rule => ({
          Client: rule.client,
          Access: rule.access,
          Squash: rule.squash,
          AnonymousUid: rule.anonUid,
          AnonymousGid: rule.anonGid,
          Flavours: rule.flavours,
        })),
        Grants: grantsBody(each.grants),
        ServiceGrants: grantsBody(array.maybe('fileServices', each.fileServiceId)?.grants),
        Root: rootBody(superblock?.root ?? nobodyYet.root),
        ...limitsBody(array, each),
        ...(array.blocks.copies === undefined
          ? {}
          : { SnapshotDirectory: { Name: earlier, IsShown: each.showsSnapshots ?? false } }),
      },
    },
  }
}

/** What of file systems hosts may mount. Source: Swordfish, FileShare; the rules and limits are the makers' own. */
export function sharePlaces(array: SimulatedArray): Place[] {
  const of = (ids: Readonly<Record<string, string>>) => array.maybe('fileSystems', ids['fileSystem'] ?? '')
  const body = (each: FileShareEntity) => shareBody(array, each)
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

import type { ShareRightsWanted } from '@/ports'
import { compile, reference } from '../schema'
import type { Maker } from './Maker'

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
    Root: {
      type: 'object',
      required: ['Uid', 'Gid', 'Mode'],
      properties: { Uid: id, Gid: id, Mode: { type: 'string', pattern: '^[0-7]{4}$' } },
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
    const { ExportRules, Root } = isSharePart(own) ? own : {}
    if (ExportRules === undefined || Root === undefined) return undefined
    return {
      ownerUid: Root.Uid,
      ownerGid: Root.Gid,
      mode: Root.Mode,
      rules: ExportRules.map(each => ({
        client: each.Client,
        access: each.Access,
        squash: each.Squash,
        anonUid: each.AnonymousUid,
        anonGid: each.AnonymousGid,
        flavours: each.Flavours,
      })),
    }
  },
  sharePart: ({ ownerUid, ownerGid, mode, rules }: ShareRightsWanted) => ({
    ExportRules: rules.map(each => ({
      Client: each.client,
      Access: each.access,
      Squash: each.squash,
      AnonymousUid: each.anonUid,
      AnonymousGid: each.anonGid,
      Flavours: each.flavours,
    })),
    Root: { Uid: ownerUid, Gid: ownerGid, Mode: mode },
  }),
} as const satisfies Maker

import type { FileMarks } from '../../files'
import type { Body } from '../body'

const id = { type: 'integer', minimum: 0, maximum: 4_294_967_294 } as const
/** Whose the root directory of a share is, and who may what with it. */
export const root = {
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
          Who: { type: 'string', pattern: '^(OWNER@|GROUP@|EVERYONE@|[ug]id:[0-9]{1,10})$' },
          Rights: { type: 'array', minItems: 1, items: { enum: ['Read', 'Write'] } },
          IsInherited: { type: 'boolean' },
        },
      },
    },
  },
} as const

export interface RootWanted {
  readonly Uid: number
  readonly Gid: number
  readonly Mode: string
  readonly AccessList?: readonly {
    readonly Type: 'Allow' | 'Deny'
    readonly Who: string
    readonly Rights: readonly ('Read' | 'Write')[]
    readonly IsInherited?: boolean
  }[]
}

export const rootIn = ({ Uid, Gid, Mode, AccessList = [] }: RootWanted): FileMarks => ({
  uid: Uid,
  gid: Gid,
  mode: Mode,
  ...(AccessList.length === 0
    ? {}
    : {
        list: AccessList.map(({ Type, Who, Rights, IsInherited }) => ({
          isRefusal: Type === 'Deny',
          who: Who,
          bits: (Rights.includes('Read') ? 1 : 0) | (Rights.includes('Write') ? 2 : 0),
          ...(IsInherited === true ? { isHandedDown: true as const } : {}),
        })),
      }),
})

export const rootBody = ({ uid, gid, mode, list = [] }: FileMarks): Body => ({
  Uid: uid,
  Gid: gid,
  Mode: mode,
  AccessList: list.map(({ isRefusal, who, bits, isHandedDown }) => ({
    Type: isRefusal ? 'Deny' : 'Allow',
    Who: who,
    Rights: [...((bits & 1) === 0 ? [] : ['Read']), ...((bits & 2) === 0 ? [] : ['Write'])],
    ...(isHandedDown === undefined ? {} : { IsInherited: true }),
  })),
})

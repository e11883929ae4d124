import { idOrBlankSchema, idSchema, principalSchema } from '@/core/estate'
import type { Operation } from './Operation'
import { list, many, object, text } from './shapes'

const protocol = { enum: ['NFS', 'SMB'] } as const
const number = { type: 'integer', minimum: 0, maximum: 4_294_967_294 } as const
const connectionTest = object({
  id: idSchema,
  hostId: idSchema,
  shareId: idSchema,
  protocol,
  caller: text(300),
  at: text(),
  madeBy: text(),
  hops: list(
    object({
      hop: { enum: ['name', 'address', 'route', 'port', 'protocol', 'share', 'read', 'write'] },
      label: text(),
      state: { enum: ['passes', 'stops', 'not tried'] },
      words: text(5000),
      milliseconds: { type: ['number', 'null'] },
    }),
  ),
  wayOut: {
    anyOf: [
      { type: 'null' },
      object({
        words: text(5000),
        forward: { anyOf: [{ type: 'null' }, object({ domain: text(253), server: text(64) })] },
      }),
    ],
  },
})

/** What is asked of directories, and of who is in them. */
export const peopleOperations = {
  lookAtDirectory: {
    method: 'post',
    path: '/directory-looks',
    summary: 'See who answers as a directory, and by which certificate, before it is told anything',
    body: object({ address: text(500) }),
    answers: object({
      fingerprint: text(),
      certificateTrouble: { type: ['string', 'null'] },
      baseDns: list(text(1000)),
      maker: { type: ['string', 'null'] },
    }),
  },
  connectFromHost: {
    method: 'post',
    path: '/host-connections',
    summary: 'Let a host look a server up by its name and get through to it, as a client would',
    body: object({ hostId: idSchema, server: text(253) }),
    answers: object({
      address: { type: ['string', 'null'] },
      isOpen: { type: 'boolean' },
      milliseconds: { type: 'number' },
      at: text(),
    }),
  },
  testConnection: {
    method: 'post',
    path: '/connection-tests',
    summary:
      'Let a host go the whole way to a share as somebody, hop by hop; what it found is kept, nothing else is left',
    body: object({
      hostId: idSchema,
      shareId: idSchema,
      protocol,
      /** Of a directory; blank for numbers, which only NFS takes. */
      personId: idOrBlankSchema,
      uid: number,
      gid: number,
    }),
    answers: connectionTest,
    status: 201,
  },
  listConnectionTests: {
    method: 'get',
    path: '/shares/{id}/connection-tests',
    summary: 'What a host found on its way to a share, test by test, the latest first',
    query: { hostId: idSchema },
    requiredQuery: ['hostId'],
    answers: many(connectionTest),
  },
  readSomebody: {
    method: 'get',
    path: '/principals/{id}',
    summary: 'A person or a group of a directory, with every group above, through others too',
    answers: object({ person: principalSchema, groups: list(principalSchema) }),
  },
} as const satisfies Readonly<Record<string, Operation>>

import { idSchema, principalSchema } from '@/core/estate'
import type { Operation } from './Operation'
import { list, object, text } from './shapes'

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
  readSomebody: {
    method: 'get',
    path: '/principals/{id}',
    summary: 'A person or a group of a directory, with every group above, through others too',
    answers: object({ person: principalSchema, groups: list(principalSchema) }),
  },
} as const satisfies Readonly<Record<string, Operation>>

import { principalSchema } from '@/core/estate'
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
  readSomebody: {
    method: 'get',
    path: '/principals/{id}',
    summary: 'A person or a group of a directory, with every group above, through others too',
    answers: object({ person: principalSchema, groups: list(principalSchema) }),
  },
} as const satisfies Readonly<Record<string, Operation>>

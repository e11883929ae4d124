import { idSchema } from '@/core/estate'
import type { Operation } from './Operation'
import { many, object, text } from './shapes'

const round = object({ id: idSchema, at: { type: 'string' }, madeBy: text(), note: text(1000) })

/** The daily look at the estate. */
export const roundOperations = {
  listRounds: { method: 'get', path: '/rounds', summary: 'The latest rounds, the latest first', answers: many(round) },
  keepRound: {
    method: 'post',
    path: '/rounds',
    summary: 'Note that the round is done',
    body: object({ note: { type: 'string', maxLength: 1000 } }),
    answers: round,
    status: 201,
  },
} as const satisfies Readonly<Record<string, Operation>>

import { idSchema } from '@/core/estate'
import type { Operation } from './Operation'
import { many, object, text } from './shapes'

const verdict = { enum: ['stays', 'goes'] } as const
const review = object({
  id: idSchema,
  shareId: idSchema,
  at: { type: 'string' },
  madeBy: text(),
  note: text(1000),
  lines: {
    type: 'array',
    items: object({
      key: text(1000),
      of: { enum: ['grant', 'rule', 'entry'] },
      who: text(300),
      words: text(1000),
      verdict,
    }),
  },
})

/** Looks at the rights of shares. */
export const reviewOperations = {
  listReviews: {
    method: 'get',
    path: '/shares/{id}/reviews',
    summary: 'The latest reviews of a share, the latest first',
    answers: many(review),
  },
  keepReview: {
    method: 'post',
    path: '/shares/{id}/reviews',
    summary: 'Keep what was decided of each right of a share; refused where its rights are no longer those',
    body: object({
      note: { type: 'string', maxLength: 1000 },
      /** By the key of each right. */
      verdicts: { type: 'object', maxProperties: 2000, additionalProperties: verdict },
    }),
    answers: review,
    status: 201,
  },
} as const satisfies Readonly<Record<string, Operation>>

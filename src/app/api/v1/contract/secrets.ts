import { idSchema } from '@/core/estate'
import { secretPurposes } from '@/records/secrets'
import type { Operation } from './Operation'
import { object } from './shapes'

/** Secrets come in, and never go out again. */
export const secretOperations = {
  keepSecret: {
    method: 'post',
    path: '/secrets',
    summary:
      'Keep a secret sealed, so that a draft can name it; it is never read out again, and goes after a day unused',
    body: object({
      purpose: { enum: [...secretPurposes] },
      text: { type: 'string', minLength: 1, maxLength: 500 },
    }),
    answers: object({ id: idSchema }),
    status: 201,
  },
} as const satisfies Readonly<Record<string, Operation>>

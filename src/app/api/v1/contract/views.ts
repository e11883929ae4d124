import { idSchema } from '@/core/estate'
import type { Operation } from './Operation'
import { many, object, text } from './shapes'

const listPath = { type: 'string', pattern: '^/[a-z][a-z/-]*$', maxLength: 100 } as const
const view = object({ id: idSchema, path: text(), name: text(), query: text(4000), madeBy: text() })

/** Lists as somebody has named them: for all who work here. */
export const viewOperations = {
  listViews: {
    method: 'get',
    path: '/views',
    summary: 'Named views of a list',
    query: { path: listPath },
    requiredQuery: ['path'],
    answers: many(view),
  },
  keepView: {
    method: 'post',
    path: '/views',
    summary: 'Name a view of a list',
    body: object({
      path: listPath,
      name: { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
      query: { type: 'string', maxLength: 2000, pattern: '^[^#?]*$' },
    }),
    answers: view,
    status: 201,
  },
  dropView: { method: 'delete', path: '/views/{id}', summary: 'Drop a named view', status: 204 },
} as const satisfies Readonly<Record<string, Operation>>

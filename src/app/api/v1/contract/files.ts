import type { Operation } from './Operation'
import { instant, list, object, text, whole } from './shapes'

const count = { type: 'number', minimum: 0 }
const folder = object({ id: whole, name: text(4096), files: count, bytes: count, folders: whole, newestAt: instant })

/** What walks through shares have found. */
export const fileOperations = {
  listFolders: {
    method: 'get',
    path: '/file-scans/{id}/folders',
    summary: 'Folders that lie in one of the latest walk through a share, the largest first; the root is 0',
    query: { parent: whole, offset: whole, limit: { type: 'integer', minimum: 1, maximum: 500 } },
    answers: object({ total: whole, items: list(folder) }),
  },
} as const satisfies Readonly<Record<string, Operation>>

import type { Asked } from '@/app/server/answer'
import { foldersIn } from '@/records/files'

/** What walks through shares have found. */
export const fileHandlers = {
  listFolders: ({ scope, id, query }: Asked) =>
    foldersIn(scope, id, Number(query['parent'] ?? 0), {
      offset: Number(query['offset'] ?? 0),
      limit: Number(query['limit'] ?? 100),
    }),
}

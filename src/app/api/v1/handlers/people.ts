import type { Asked } from '@/app/server/answer'
import { NotThere } from '@/app/server/errors'
import { connectFromHost, lookAtDirectory, testConnection } from '@/looking'
import { connectionTests } from '@/records/connections'
import { somebody } from '@/records/queries'

/** What is asked of directories, and of who is in them. */
export const peopleHandlers = {
  lookAtDirectory: ({ body, scope, request }: Asked) => lookAtDirectory(scope, String(body['address']), request.signal),
  connectFromHost: ({ body, scope, key, request }: Asked) =>
    connectFromHost(scope, key, String(body['hostId']), String(body['server']), request.signal),
  testConnection: ({ body, scope, key, who, request }: Asked) =>
    testConnection(
      scope,
      key,
      {
        hostId: String(body['hostId']),
        shareId: String(body['shareId']),
        protocol: body['protocol'] === 'SMB' ? 'SMB' : 'NFS',
        personId: String(body['personId']),
        uid: Number(body['uid']),
        gid: Number(body['gid']),
      },
      who.name,
      request.signal,
    ),
  listConnectionTests: async ({ scope, id, query }: Asked) => ({
    items: await connectionTests(scope, String(query['hostId']), id),
  }),
  async readSomebody({ scope, id }: Asked) {
    const found = await somebody(scope, id)
    if (found === undefined) throw new NotThere('The person or group')
    return found
  },
}

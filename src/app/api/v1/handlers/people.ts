import type { Asked } from '@/app/server/answer'
import { NotThere } from '@/app/server/errors'
import { connectFromHost, lookAtDirectory } from '@/looking'
import { somebody } from '@/records/queries'

/** What is asked of directories, and of who is in them. */
export const peopleHandlers = {
  lookAtDirectory: ({ body, scope, request }: Asked) => lookAtDirectory(scope, String(body['address']), request.signal),
  connectFromHost: ({ body, scope, key, request }: Asked) =>
    connectFromHost(scope, key, String(body['hostId']), String(body['server']), request.signal),
  async readSomebody({ scope, id }: Asked) {
    const found = await somebody(scope, id)
    if (found === undefined) throw new NotThere('The person or group')
    return found
  },
}

import { NotOffered, type FileServices, type Made } from '@/ports'
import type { Connection } from '../Connection'
import { changeNamed } from '../changeNamed'
import { keyMark } from '../keyMark'
import type { Offer } from '../Reach'
import { madeBy, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { grantsPart } from './grants'
import { foundService } from './read'
import { isFileService } from './schema'

async function change(connection: Connection, locator: string, expectedName: string, body: object) {
  await changeNamed(connection, locator, isFileService, expectedName, () => ({ method: 'PATCH', body }))
}

/** File services, where a maker's systems have such. */
export const fileServices: Offer<'fileServices'> = ({ connection, map }): FileServices => {
  const all = map.fileServices
  if (all === undefined)
    throw new NotOffered(
      connection.endpoint.address,
      'fileServices',
      'Its storage states none, and no units on which one could stand.',
    )
  return {
    async byKey(key): Promise<Made | undefined> {
      const found = (await connection.members(all, isFileService)).find(each => each.Description === keyMark(key))
      if (found === undefined) return undefined
      return { locator: found['@odata.id'], task: await taskMaking(connection, map.tasks, found['@odata.id']) }
    },
    async make({ name, nameServers, searchSuffixes, instances }, key) {
      const body = {
        Name: name,
        Description: keyMark(key),
        NameServers: nameServers,
        SearchSuffixes: searchSuffixes,
        Instances: instances.map(each => ({ Unit: each.unit, Address: each.address, PrefixLength: each.prefixLength })),
      }
      return madeBy(connection, await connection.change('POST', all, body))
    },
    async at(locator) {
      const found = await connection.readIfThere(locator, isFileService)
      if (found === undefined) return undefined
      return { ...foundService(found), task: await taskMaking(connection, map.tasks, locator) }
    },
    join: (locator, expectedName, { address, baseDn, userName, password }) =>
      change(connection, locator, expectedName, {
        Directory: { Address: address, BaseDn: baseDn, UserName: userName, Password: password },
      }),
    leave: (locator, expectedName) => change(connection, locator, expectedName, { Directory: null }),
    setGrants: (locator, expectedName, grants) =>
      change(connection, locator, expectedName, { Grants: grantsPart(grants) }),
    remove: (locator, expectedName) =>
      unlessGone(async () => {
        await changeNamed(connection, locator, isFileService, expectedName, () => ({ method: 'DELETE' }))
      }),
  }
}

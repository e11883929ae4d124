import { NotOffered, type Shares } from '@/ports'
import { changeNamed } from '../changeNamed'
import { keyMark } from '../keyMark'
import { ofMaker } from '../makers'
import { reference, type Offer, type Reach } from '../Reach'
import { madeBy } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { seenShare, volumeOf } from './read'
import { isFileShare, isFileSystem } from './schema'

/** File systems and their shares. Source: Swordfish, FileSystem and its ExportedShares. */
export const shares: Offer<'shares'> = reach => {
  const { connection, map } = reach
  const all = map.fileSystems
  if (all === undefined)
    throw new NotOffered(connection.endpoint.address, 'shares', 'Its storage names no file systems.')
  return {
    async fileSystemByKey(key) {
      return (await connection.members(all, isFileSystem)).find(each => each.Description === keyMark(key))?.[
        '@odata.id'
      ]
    },
    async makeFileSystem(volumeLocator, name, key) {
      const body = {
        Name: name,
        Description: keyMark(key),
        CapacitySources: [{ ProvidingVolumes: { Members: [reference(volumeLocator)] } }],
      }
      return (await madeBy(connection, await connection.change('POST', all, body))).locator
    },
    removeFileSystem: (locator, expectedName) =>
      unlessGone(async () => {
        await changeNamed(connection, locator, isFileSystem, expectedName, () => ({ method: 'DELETE' }))
      }),
    ...shareMaking(reach),
    ...shareAltering(reach),
  }
}

type Altering = 'setRights' | 'setLimits' | 'showSnapshots' | 'remove'

function shareMaking({ connection, map }: Reach): Pick<Shares, 'byKey' | 'make' | 'at'> {
  return {
    async byKey(fileSystemLocator, key) {
      const exported = (await connection.readIfThere(fileSystemLocator, isFileSystem))?.ExportedShares
      if (exported === undefined) return undefined
      const all = await connection.members(exported['@odata.id'], isFileShare)
      return all.find(each => each.Description === keyMark(key))?.['@odata.id']
    },
    async make(fileSystemLocator, wanted, key) {
      const { ExportedShares } = await connection.read(fileSystemLocator, isFileSystem)
      const body = {
        Name: wanted.name,
        Description: keyMark(key),
        FileSharePath: wanted.path,
        FileSharingProtocols: wanted.protocols,
        Links: { Oem: { FileService: reference(wanted.fileServiceLocator) } },
        ...ofMaker.shareBody(map.identity.maker, wanted),
      }
      const at = ExportedShares?.['@odata.id'] ?? `${fileSystemLocator}/ExportedFileShares`
      return (await madeBy(connection, await connection.change('POST', at, body))).locator
    },
    async at(locator) {
      const found = await connection.readIfThere(locator, isFileShare)
      const system = found?.Links?.FileSystem?.['@odata.id']
      if (found === undefined || system === undefined) return undefined
      const fileSystem = await connection.readIfThere(system, isFileSystem)
      return seenShare(found, fileSystem === undefined ? undefined : volumeOf(fileSystem))
    },
  }
}

function shareAltering({ connection, map }: Reach): Pick<Shares, Altering> {
  const { maker } = map.identity
  /** Does something to the share that is expected, and to no other that stands there meanwhile. */
  const toExpected = async (locator: string, expectedName: string, method: 'PATCH' | 'DELETE', body?: object) => {
    await changeNamed(connection, locator, isFileShare, expectedName, () => ({ method, body }))
  }
  return {
    setRights: (locator, expectedName, rights) =>
      toExpected(locator, expectedName, 'PATCH', ofMaker.shareBody(maker, rights)),
    setLimits: (locator, expectedName, limits) =>
      toExpected(locator, expectedName, 'PATCH', ofMaker.limitsBody(maker, limits)),
    async showSnapshots(locator, expectedName, isShown) {
      const body = ofMaker.snapshotDirectoryBody(maker, isShown)
      const { address } = connection.endpoint
      if (body === undefined)
        throw new NotOffered(address, 'shares', 'Its maker has no directory in which hosts find snapshots.')
      await toExpected(locator, expectedName, 'PATCH', body)
    },
    remove: (locator, expectedName) => unlessGone(() => toExpected(locator, expectedName, 'DELETE')),
  }
}

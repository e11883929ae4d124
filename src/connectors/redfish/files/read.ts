import { fileProtocols, type FileProtocol } from '@/core/estate'
import type { Inventory, ShareSeen } from '@/ports'
import type { Connection } from '../Connection'
import { ofMaker } from '../makers'
import type { ServiceMap } from '../service/serviceMap'
import { grantsOf } from './grants'
import {
  isFileService,
  isFileShare,
  isFileSystem,
  type RedfishFileService,
  type RedfishFileShare,
  type RedfishFileSystem,
} from './schema'

type Files = Pick<Inventory, 'fileServices' | 'fileSystems' | 'shares'>

export const foundService = (each: RedfishFileService): Files['fileServices'][number] => ({
  locator: each['@odata.id'],
  name: each.Name ?? '',
  nameServers: each.NameServers ?? [],
  searchSuffixes: each.SearchSuffixes ?? [],
  joinedTo: each.Directory?.BaseDn ?? null,
  joinedAs: each.Directory?.Account ?? null,
  grants: grantsOf(each.Grants),
  instances: each.Instances.map(({ Unit, Address, PrefixLength, StandsOn }) => ({
    unit: Unit,
    address: Address,
    prefixLength: PrefixLength,
    standsOn: StandsOn ?? null,
  })),
})

const isKnown = (protocol: string): protocol is FileProtocol => (fileProtocols as readonly string[]).includes(protocol)

/** A share with what it stands on; undefined where it names no service or its system states no rules that could be read. */
export function seenShare(each: RedfishFileShare, volumeLocator: string | undefined): ShareSeen | undefined {
  const service = each.Links?.Oem?.FileService?.['@odata.id']
  const rights = ofMaker.shareRights(each)
  if (service === undefined || volumeLocator === undefined || rights === undefined) return undefined
  return {
    locator: each['@odata.id'],
    volumeLocator,
    fileServiceLocator: service,
    name: each.Name ?? '',
    path: each.FileSharePath,
    protocols: (each.FileSharingProtocols ?? []).filter(isKnown),
    ...rights,
    serviceGrants: ofMaker.serviceGrants(each),
    ...ofMaker.shareLimits(each),
    snapshotDirectory: ofMaker.snapshotDirectory(each),
  }
}

export const volumeOf = (each: RedfishFileSystem) =>
  each.CapacitySources?.[0]?.ProvidingVolumes?.Members?.[0]?.['@odata.id']

const notUsable = 'It names no file service, or states its rules in no way that is known: who may use it is not told.'

/** File services, and the shares of all file systems; a share that cannot be used is told of. */
export async function readFiles(connection: Connection, map: ServiceMap): Promise<Files> {
  const services = map.fileServices === undefined ? [] : await connection.members(map.fileServices, isFileService)
  const shares: Files['shares'][number][] = []
  const fileSystems: Files['fileSystems'][number][] = []
  const systems = map.fileSystems === undefined ? [] : await connection.members(map.fileSystems, isFileSystem)
  for (const system of systems) {
    const { ConsumedBytes = 0, ProvisionedBytes = 0 } = system.Capacity?.Data ?? {}
    const space = { sizeBytes: BigInt(ProvisionedBytes), usedBytes: BigInt(ConsumedBytes) }
    const [locator, volumeLocator] = [system['@odata.id'], volumeOf(system)]
    const exported =
      system.ExportedShares === undefined
        ? []
        : await connection.members(system.ExportedShares['@odata.id'], isFileShare)
    for (const each of exported) {
      const share = seenShare(each, volumeLocator)
      if (share === undefined) connection.skip(each['@odata.id'], notUsable)
      else shares.push({ ...share, ...space })
    }
    if (volumeLocator === undefined) connection.skip(locator, 'It does not say on which volume it stands.')
    else fileSystems.push({ locator, volumeLocator, name: system.Name ?? '', ...space, shareCount: exported.length })
  }
  return { fileServices: services.map(foundService), fileSystems, shares }
}

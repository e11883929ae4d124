import type { Inventory, InventoryParts } from '@/ports'
import type { Connection } from './Connection'
import type { ServiceMap } from './identity'
import { readDrives } from './readDrives'
import { banksIn, spreadIn } from './row/nodeRow'
import { readRow } from './row/readRow'
import { readWorks } from './row/readWorks'
import { foundPool, foundVolume, groupsOf } from './readPools'
import { isConnection, isEndpoint, isEndpointGroup, isFabric } from './fabricSchemas'
import { isController, isPool, isPort, isVolume, type RedfishSource } from './schemas'
import { withSources } from './sources'

/** Reads all that a system has, in as many requests as it has collections. */
export async function readInventory(connection: Connection, map: ServiceMap): Promise<Inventory> {
  const { enclosures, drives, sensors } = await readDrives(connection, map)
  const controllers = map.controllers === undefined ? [] : await connection.members(map.controllers, isController)
  const ports = []
  for (const controller of controllers) {
    if (controller.Ports !== undefined) ports.push(...(await connection.members(controller.Ports['@odata.id'], isPort)))
  }
  const pools = await resolved(connection, await connection.members(map.pools, isPool))
  const volumes = await resolved(connection, await connection.members(map.volumes, isVolume))
  const fabric = await readFabric(connection, map.fabrics)
  const driveAt = new Map(drives.map(drive => [drive.locator, drive]))
  const groupByDrive = new Map(
    pools.flatMap(pool => groupsOf(pool).flatMap((group, index) => group.map(locator => [locator, index] as const))),
  )
  const bankByDrive = new Map(
    pools.flatMap(pool => {
      const spread = spreadIn(pool)
      const banks = spread === undefined ? [] : banksIn(spread)
      return banks.flatMap(bank =>
        [bank.cacheLocator, ...bank.capacityLocators].map(locator => [locator, bank] as const),
      )
    }),
  )
  return {
    identity: map.identity,
    controllers: controllers.map(each => ({
      locator: each['@odata.id'],
      name: each.Name,
      model: each.Model ?? null,
      firmware: each.FirmwareVersion ?? null,
      state: each.Status?.Health === 'Critical' ? 'failed' : 'fine',
    })),
    enclosures,
    drives: drives.map(drive => {
      const place = bankByDrive.get(drive.locator)
      return {
        ...drive,
        groupIndex: groupByDrive.get(drive.locator) ?? null,
        bank: place?.number ?? null,
        role: place?.cacheLocator === drive.locator ? ('cache' as const) : drive.role,
      }
    }),
    ports: ports.map(each => ({
      locator: each['@odata.id'],
      name: each.Name,
      protocol: each.PortProtocol ?? 'unknown',
      speedBitsPerSecond: (each.CurrentSpeedGbps ?? 0) * 1e9,
      isUp: each.LinkStatus === 'LinkUp' || each.LinkStatus === 'Up',
      address: fabric.targets.get(each.Id ?? '')?.address ?? null,
      targetName: fabric.targets.get(each.Id ?? '')?.name ?? null,
    })),
    pools: pools.map(pool => foundPool(pool, driveAt)),
    volumes: volumes.map(foundVolume),
    mappings: fabric.mappings,
    accessGroups: fabric.accessGroups,
    sensors,
    ...(await readRow(connection, map)),
    works: map.computers === undefined ? [] : await readWorks(connection),
    skipped: connection.skipped,
  }
}

/** What stands at some places now, as far as it can be told by itself: whole drives and volumes. What is anything else is left out. */
export async function readParts(
  connection: Connection,
  map: ServiceMap,
  locators: readonly string[],
): Promise<InventoryParts | undefined> {
  const volumes: Inventory['volumes'][number][] = []
  for (const locator of locators) {
    // Drives and pools change each other: they are read as a whole.
    if (!locator.startsWith(`${map.volumes}/`)) return undefined
    const found = await connection.readIfThere(locator, isVolume)
    if (found === undefined) return undefined
    volumes.push(foundVolume(await withSources(connection, found)))
  }
  return { volumes }
}

async function resolved<T extends { CapacitySources?: RedfishSource[] }>(
  connection: Connection,
  all: readonly T[],
): Promise<T[]> {
  const whole: T[] = []
  for (const each of all) whole.push(await withSources(connection, each))
  return whole
}

async function readFabric(connection: Connection, fabricsPath: string | undefined) {
  const mappings: Inventory['mappings'][number][] = []
  const accessGroups: Inventory['accessGroups'][number][] = []
  const targets = new Map<string, { readonly name: string; readonly address: string }>()
  const fabrics = fabricsPath === undefined ? [] : await connection.members(fabricsPath, isFabric)
  for (const fabric of fabrics) {
    const endpoints =
      fabric.Endpoints === undefined ? [] : await connection.members(fabric.Endpoints['@odata.id'], isEndpoint)
    const groups =
      fabric.EndpointGroups === undefined
        ? []
        : await connection.members(fabric.EndpointGroups['@odata.id'], isEndpointGroup)
    const connections =
      fabric.Connections === undefined ? [] : await connection.members(fabric.Connections['@odata.id'], isConnection)
    const nameOf = new Map(endpoints.map(each => [each['@odata.id'], each.Identifiers[0]?.DurableName ?? '']))
    const groupAt = new Map(groups.map(each => [each['@odata.id'], each]))
    accessGroups.push(
      ...groups.map(group => ({
        name: group.Name,
        initiators: (group.Endpoints ?? []).map(member => nameOf.get(member['@odata.id']) ?? ''),
      })),
    )
    for (const endpoint of endpoints) {
      const address = endpoint.IPTransportDetails?.[0]?.IPv4Address?.Address
      if (address !== undefined)
        targets.set((endpoint.Id ?? '').replace(/^target-/, ''), {
          name: endpoint.Identifiers[0]?.DurableName ?? '',
          address,
        })
    }
    for (const each of connections) {
      const group = groupAt.get(each.Links?.InitiatorEndpointGroups?.[0]?.['@odata.id'] ?? '')
      mappings.push(
        ...each.VolumeInfo.map(info => ({
          locator: each['@odata.id'],
          volumeLocator: info.Volume['@odata.id'],
          groupName: group?.Name ?? 'unnamed group',
          lun: info.LUN ?? 0,
          initiators: (group?.Endpoints ?? []).map(member => nameOf.get(member['@odata.id']) ?? ''),
        })),
      )
    }
  }
  return { mappings, accessGroups, targets }
}

import type { Inventory, InventoryParts } from '@/ports'
import type { Connection } from './Connection'
import { isConsistencyGroup } from './consistencyGroups/schema'
import { isController, isPort, type RedfishController, type RedfishPort } from './controllers/schema'
import { readDrives } from './drives/read'
import { readFiles } from './files/read'
import { ofMaker } from './makers'
import { readFabric } from './mappings/read'
import { readRow } from './nodes/read'
import { foundPool, groupsOf } from './pools/read'
import { isPool, type RedfishPool, type RedfishSource } from './pools/schema'
import { withSources } from './pools/sources'
import type { ServiceMap } from './service/serviceMap'
import { readWorks } from './tasks/readWorks'
import { foundSnapshot, isSnapshot } from './snapshots/read'
import { foundVolume } from './volumes/read'
import { isVolume } from './volumes/schema'

/** Reads all that a system has, in as many requests as it has collections. */
export async function readInventory(connection: Connection, map: ServiceMap): Promise<Inventory> {
  const { enclosures, drives, sensors } = await readDrives(connection, map)
  const { controllers, ports } = await readControllers(connection, map)
  const pools = await resolved(connection, await connection.members(map.pools, isPool))
  const snapshots: Inventory['snapshots'][number][] = []
  const volumes = (
    await connection.members(map.volumes, isVolume, each => {
      if (isSnapshot(each)) return void snapshots.push(foundSnapshot(each))
      const whole = withSources(connection, each)
      return whole instanceof Promise ? whole.then(foundVolume) : foundVolume(whole)
    })
  ).filter(each => each !== undefined)
  const fabric = await readFabric(connection, map.fabrics)
  const driveAt = new Map(drives.map(drive => [drive.locator, drive]))
  return {
    identity: map.identity,
    controllers: controllers.map(foundController),
    enclosures,
    drives: placedDrives(drives, pools),
    ports: ports.map(each => foundPort(each, fabric.targets)),
    pools: pools.map(pool => foundPool(pool, driveAt)),
    volumes,
    snapshots,
    consistencyGroups: await readGroups(connection, map),
    mappings: mappingsTo(fabric.mappings, snapshots),
    accessGroups: fabric.accessGroups,
    ungrouped: fabric.ungrouped,
    fileUnits: map.fileUnits,
    partners: map.partners,
    ...(await readFiles(connection, map)),
    sensors,
    ...(await readRow(connection, map)),
    works: map.computers === undefined ? [] : await readWorks(connection, map.tasks),
    skipped: connection.skipped,
  }
}

interface PortAt {
  readonly port: RedfishPort
  readonly controllerLocator: string
}

/** Controllers with their ports. */
async function readControllers(connection: Connection, map: ServiceMap) {
  const controllers = map.controllers === undefined ? [] : await connection.members(map.controllers, isController)
  const ports: PortAt[] = []
  for (const controller of controllers) {
    if (controller.Ports === undefined) continue
    const own = await connection.members(controller.Ports['@odata.id'], isPort)
    ports.push(...own.map(port => ({ port, controllerLocator: controller['@odata.id'] })))
  }
  return { controllers, ports }
}

const foundController = (each: RedfishController): Inventory['controllers'][number] => ({
  locator: each['@odata.id'],
  name: each.Name,
  model: each.Model ?? null,
  firmware: each.FirmwareVersion ?? null,
  state: each.Status?.Health === 'Critical' ? 'failed' : 'fine',
})

const foundPort = (
  { port, controllerLocator }: PortAt,
  targets: Awaited<ReturnType<typeof readFabric>>['targets'],
): Inventory['ports'][number] => ({
  controllerLocator,
  locator: port['@odata.id'],
  name: port.Name,
  protocol: port.PortProtocol ?? 'unknown',
  speedBitsPerSecond: (port.CurrentSpeedGbps ?? 0) * 1e9,
  isUp: port.LinkStatus === 'LinkUp' || port.LinkStatus === 'Up',
  address: targets.get(port.Id ?? '')?.address ?? null,
  targetName: targets.get(port.Id ?? '')?.name ?? null,
})

/** Drives with the group or bank of the pool that they are in. */
function placedDrives(
  drives: Awaited<ReturnType<typeof readDrives>>['drives'],
  pools: readonly RedfishPool[],
): Inventory['drives'] {
  const groupByDrive = new Map(
    pools.flatMap(pool => groupsOf(pool).flatMap((group, index) => group.map(locator => [locator, index] as const))),
  )
  const bankByDrive = new Map(
    pools.flatMap(pool =>
      (ofMaker.spread(pool)?.banks ?? []).flatMap(bank =>
        [bank.cacheLocator, ...bank.capacityLocators].map(locator => [locator, bank] as const),
      ),
    ),
  )
  return drives.map(drive => {
    const place = bankByDrive.get(drive.locator)
    return {
      ...drive,
      groupIndex: groupByDrive.get(drive.locator) ?? null,
      bank: place?.number ?? null,
      role: place?.cacheLocator === drive.locator ? ('cache' as const) : drive.role,
    }
  })
}

/** Groups of volumes, where the system has such. */
async function readGroups(connection: Connection, map: ServiceMap): Promise<Inventory['consistencyGroups']> {
  if (map.consistencyGroups === undefined) return []
  const all = await connection.members(map.consistencyGroups, isConsistencyGroup)
  return all.map(each => ({
    locator: each['@odata.id'],
    name: each.Name,
    volumeCount: each.Volumes?.length ?? 0,
  }))
}

/** What stands at some places now, as far as it can be told by itself: whole drives and volumes. What is anything else is left out. */
export async function readParts(
  connection: Connection,
  map: ServiceMap,
  locators: readonly string[],
): Promise<InventoryParts | undefined> {
  const volumes: Inventory['volumes'][number][] = []
  const snapshots: Inventory['snapshots'][number][] = []
  for (const locator of locators) {
    // Drives and pools change each other: they are read as a whole.
    if (!locator.startsWith(`${map.volumes}/`)) return undefined
    const found = await connection.readIfThere(locator, isVolume)
    if (found === undefined) return undefined
    if (isSnapshot(found)) snapshots.push(foundSnapshot(found))
    else volumes.push(foundVolume(await withSources(connection, found)))
  }
  return { ...(volumes.length === 0 ? {} : { volumes }), ...(snapshots.length === 0 ? {} : { snapshots }) }
}

/** What is shown to hosts is told by its place only: that of a volume, or of a snapshot. */
function mappingsTo(all: Inventory['mappings'], snapshots: Inventory['snapshots']): Inventory['mappings'] {
  const places = new Set(snapshots.map(({ locator }) => locator))
  return all.map(each =>
    each.volumeLocator !== null && places.has(each.volumeLocator)
      ? { ...each, volumeLocator: null, snapshotLocator: each.volumeLocator }
      : each,
  )
}

async function resolved<T extends { CapacitySources?: RedfishSource[] }>(
  connection: Connection,
  all: readonly T[],
): Promise<T[]> {
  const whole: T[] = []
  for (const each of all) whole.push(await withSources(connection, each))
  return whole
}

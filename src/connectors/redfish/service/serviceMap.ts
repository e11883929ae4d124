import { DateTime } from 'luxon'
import type { SystemIdentity } from '@/ports'
import type { Connection } from '../Connection'
import { NoStorageSystem } from '../errors'
import { isController } from '../controllers/schema'
import { isChassis } from '../drives/schema'
import { ofMaker } from '../makers'
import { isManager, isStorage, isTaskService } from './schema'

/** Where the parts of a system's service stand. */
export interface ServiceMap {
  readonly identity: SystemIdentity
  readonly storage: string
  readonly controllers: string | undefined
  readonly pools: string
  readonly volumes: string
  /** Undefined for a system that has no such groups. */
  readonly consistencyGroups: string | undefined
  readonly fileServices: string | undefined
  /** On which a file service can stand. */
  readonly fileUnits: readonly string[]
  /** Serials of the systems to which it can mirror. */
  readonly partners: readonly string[]
  readonly fileSystems: string | undefined
  /** Drives that the storage names; a system may name them there, at their chassis, or at both. */
  readonly driveLinks: readonly string[]
  readonly chassis: string | undefined
  readonly fabrics: string | undefined
  readonly managers: string | undefined
  readonly eventService: string | undefined
  readonly tasks: string | undefined
  /** What the system measures and keeps by itself; undefined where it keeps nothing. */
  readonly telemetry: string | undefined
  /** Where the nodes of a row stand, and the unions of them; undefined for an array. */
  readonly computers: string | undefined
  readonly aggregation: string | undefined
  /** Racks by the chassis that stand in them. */
  readonly rackOf: ReadonlyMap<string, string>
}

/** Reads who the system is and finds its storage. @throws {NoStorageSystem} where it has none */
export async function serviceMap(connection: Connection): Promise<ServiceMap> {
  const { address } = connection.endpoint
  const root = await connection.serviceRoot()
  if (root.Storage === undefined) throw new NoStorageSystem(address, 'It speaks Redfish, but offers no storage.')
  const [storage] = await connection.members(root.Storage['@odata.id'], isStorage)
  if (storage === undefined) throw new NoStorageSystem(address, 'It speaks Redfish, but its list of storage is empty.')
  const controllers =
    storage.Controllers === undefined ? [] : await connection.members(storage.Controllers['@odata.id'], isController)
  const first = controllers[0]
  return {
    identity: {
      uuid: root.UUID ?? '',
      name: root.ServiceIdentification ?? storage.Name ?? '',
      maker: root.Vendor ?? 'unknown maker',
      model: root.Product ?? first?.Model ?? 'unknown model',
      serial: (first?.SerialNumber ?? root.UUID ?? 'unknown').replace(/-[A-Z0-9]$/, ''),
      firmware: first?.FirmwareVersion ?? null,
      redfishVersion: root.RedfishVersion,
    },
    storage: storage['@odata.id'],
    controllers: storage.Controllers?.['@odata.id'],
    pools: storage.StoragePools['@odata.id'],
    volumes: storage.Volumes['@odata.id'],
    consistencyGroups: storage.ConsistencyGroups?.['@odata.id'],
    fileServices: ofMaker.fileService(storage)?.locator,
    fileUnits: ofMaker.fileService(storage)?.units ?? [],
    partners: ofMaker.partners(storage),
    fileSystems: storage.FileSystems?.['@odata.id'],
    driveLinks: (storage.Drives ?? []).map(each => each['@odata.id']),
    chassis: root.Chassis?.['@odata.id'],
    fabrics: root.Fabrics?.['@odata.id'],
    managers: root.Managers?.['@odata.id'],
    eventService: root.EventService?.['@odata.id'],
    tasks: await taskList(connection, root.Tasks?.['@odata.id']),
    telemetry: root.TelemetryService?.['@odata.id'],
    computers: root.Systems?.['@odata.id'],
    aggregation: root.AggregationService?.['@odata.id'],
    rackOf: await racks(connection, root.Chassis?.['@odata.id']),
  }
}

/** Where tasks stand; undefined for a service that has none. */
async function taskList(connection: Connection, service: string | undefined): Promise<string | undefined> {
  const found = service === undefined ? undefined : await connection.readIfThere(service, isTaskService)
  return found?.Tasks?.['@odata.id']
}

async function racks(connection: Connection, chassis: string | undefined): Promise<Map<string, string>> {
  const all = chassis === undefined ? [] : await connection.members(chassis, isChassis)
  return new Map(
    all.flatMap(each => {
      const rack = each.Location?.Placement?.Rack
      return rack === null || rack === undefined ? [] : [[each['@odata.id'], rack] as const]
    }),
  )
}

/** The system's own time. */
export async function systemTime(connection: Connection, managers: string | undefined): Promise<Date> {
  if (managers === undefined) return new Date()
  const [manager] = await connection.members(managers, isManager)
  const stated = DateTime.fromISO(manager?.DateTime ?? '', { zone: 'utc' })
  return stated.isValid ? stated.toJSDate() : new Date()
}

import { group } from 'd3-array'
import type { Inventory, SensorReading } from '@/ports'
import type { Connection } from '../Connection'
import { usable } from '../usable'
import { ofMaker } from '../makers'
import type { ServiceMap } from '../service/serviceMap'
import { isChassis, isDrive, isSensor, type RedfishChassis, type RedfishDrive } from './schema'

type FoundDrive = Inventory['drives'][number]
type FoundEnclosure = Inventory['enclosures'][number]

/** Enclosures with their drives and temperatures. */
export async function readDrives(
  connection: Connection,
  map: Pick<ServiceMap, 'chassis' | 'driveLinks'>,
): Promise<{ enclosures: FoundEnclosure[]; drives: FoundDrive[]; sensors: SensorReading[] }> {
  const enclosures: FoundEnclosure[] = []
  const drives: FoundDrive[] = []
  const sensors: SensorReading[] = []
  const all = map.chassis === undefined ? [] : await connection.members(map.chassis, isChassis)
  const beside = await drivesBeside(connection, map.driveLinks, all)
  for (const chassis of all) {
    const locator = chassis['@odata.id']
    const own =
      chassis.Drives === undefined
        ? (beside.get(locator) ?? [])
        : await connection.members(chassis.Drives['@odata.id'], isDrive)
    const node = chassis.Links?.ComputerSystems?.[0]?.['@odata.id'] ?? null
    drives.push(...own.map((drive, index) => foundDrive(drive, locator, node, index)))
    if (own.length > 0) enclosures.push(foundEnclosure(chassis, own))
    if (chassis.Sensors === undefined) continue
    for (const sensor of await connection.members(chassis.Sensors['@odata.id'], isSensor)) {
      if (sensor.Reading === null || sensor.Reading === undefined) continue
      sensors.push({
        name: `${chassis.Name}, ${sensor.Name ?? 'sensor'}`,
        unit: sensor.ReadingUnits ?? '',
        reading: sensor.Reading,
        cautionAt: sensor.Thresholds?.UpperCaution?.Reading ?? null,
      })
    }
  }
  return { enclosures, drives, sensors }
}

/** Drives that a system names at its storage and not at their chassis, by the chassis in which each says that it is. */
async function drivesBeside(
  connection: Connection,
  links: readonly string[],
  all: readonly RedfishChassis[],
): Promise<Map<string, RedfishDrive[]>> {
  if (links.length === 0 || all.every(chassis => chassis.Drives !== undefined)) return new Map()
  const fallback = all[0]?.['@odata.id'] ?? ''
  const drives = await usable(
    connection,
    links.map(each => ({ '@odata.id': each })),
    isDrive,
  )
  return group(drives, drive => drive.Links?.Chassis?.['@odata.id'] ?? fallback)
}

function foundDrive(
  drive: RedfishDrive,
  enclosureLocator: string,
  nodeLocator: string | null,
  index: number,
): FoundDrive {
  const life = drive.PredictedMediaLifeLeftPercent
  const hours = drive.Metrics?.PowerOnHours
  const poolLocator = drive.Links?.StoragePools?.[0]?.['@odata.id'] ?? null
  return {
    locator: drive['@odata.id'],
    enclosureLocator,
    poolLocator,
    bay: drive.PhysicalLocation?.PartLocation?.LocationOrdinalValue ?? index + 1,
    name: drive.Name,
    media: drive.MediaType,
    protocol: drive.Protocol === 'NVMe' || drive.Protocol === 'SATA' ? drive.Protocol : 'SAS',
    capacityBytes: BigInt(drive.CapacityBytes),
    model: drive.Model ?? 'unknown model',
    serial: drive.SerialNumber,
    wwn: drive.Identifiers?.find(each => each.DurableNameFormat === 'NAA')?.DurableName ?? null,
    firmware: drive.Revision ?? null,
    state: stateOf(drive),
    role: poolLocator === null ? 'unassigned' : isSpare(drive) ? 'spare' : 'data',
    groupIndex: null, // the pool says which of its groups a drive is in
    rotationSpeedRpm: drive.RotationSpeedRPM ?? null,
    powerOnHours: hours === null || hours === undefined ? null : Math.round(hours),
    correctedErrors: together(drive.Metrics?.CorrectableIOReadErrorCount, drive.Metrics?.CorrectableIOWriteErrorCount),
    lostErrors: together(drive.Metrics?.UncorrectableIOReadErrorCount, drive.Metrics?.UncorrectableIOWriteErrorCount),
    wearRatio: life === null || life === undefined ? null : 1 - life / 100,
    nodeLocator,
    isLit: drive.LocationIndicatorActive ?? false,
    ...ofMaker.drive(drive),
    bank: null, // the pool says which bank a drive is in
  }
}

/** Errors of reading and of writing; null where neither is a count. Source: Redfish DriveMetrics. */
function together(...counts: readonly (number | null | undefined)[]): number | null {
  const told = counts.filter(each => each != null && Number.isFinite(each) && each >= 0) as number[]
  return told.length === 0 ? null : told.reduce((sum, each) => sum + Math.round(each), 0)
}

function stateOf({ Status, FailurePredicted }: RedfishDrive): FoundDrive['state'] {
  if (Status.Health === 'Critical') return 'failed'
  return Status.Health === 'Warning' || FailurePredicted === true ? 'failing' : 'fine'
}

const isSpare = ({ Status, HotspareType }: RedfishDrive) =>
  Status.State === 'StandbySpare' || HotspareType === 'Dedicated'

const twoUnitsMm = 100

/** How bays stand in the rack follows from the drives' form and the enclosure's height, as the standard states no grid. */
function foundEnclosure(chassis: RedfishChassis, drives: readonly RedfishDrive[]): FoundEnclosure {
  const highest = Math.max(
    ...drives.map((drive, index) => drive.PhysicalLocation?.PartLocation?.LocationOrdinalValue ?? index + 1),
  )
  const isLarge = drives.some(drive => drive.FormFactor === 'Drive3_5')
  const isLow = (chassis.HeightMm ?? 0) <= twoUnitsMm
  const baysPerRow = isLarge ? (isLow ? 4 : 6) : 24
  const rows = Math.ceil(highest / baysPerRow)
  return {
    locator: chassis['@odata.id'],
    name: chassis.Name,
    bayCount: isLarge ? rows * baysPerRow : highest <= 8 ? 8 : rows * 24,
    baysPerRow: isLarge ? baysPerRow : highest <= 8 ? 8 : 24,
  }
}

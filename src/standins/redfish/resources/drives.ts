import { shownErrors, type DriveEntity, type SimulatedArray } from '../../array'
import { link, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import type { RowService } from '../RowService'

const lighting = {
  type: 'object',
  required: ['LocationIndicatorActive'],
  additionalProperties: false,
  properties: { LocationIndicatorActive: { type: 'boolean' } },
} as const
const erasure = {
  type: 'object',
  required: ['SanitizationType'],
  properties: { SanitizationType: { enum: ['BlockErase', 'Overwrite'] } },
} as const

export const drivePath = (each: Pick<DriveEntity, 'id' | 'enclosureId'>) =>
  `Chassis/${each.enclosureId}/Drives/${each.id}`

/** Drives in their bays; the light is switched and the drive erased where a row of nodes offers it. */
export function drivePlaces(array: SimulatedArray, nodes?: RowService): Place[] {
  return placesOf<DriveEntity>({
    path: 'Chassis/:chassis/Drives/:drive',
    type: 'Drive.v1_19_0.Drive',
    title: 'Drives',
    members: ({ chassis }) =>
      array.model.enclosures.some(each => each.id === chassis)
        ? array.all('drives').filter(each => each.enclosureId === chassis && !each.isPulled)
        : undefined,
    // One that was pulled is in no list, but what has named it still leads to it.
    find: (id, { chassis }) => {
      const found = array.maybe('drives', id)
      return found?.enclosureId === chassis ? found : undefined
    },
    idOf: each => each.id,
    nameOf: each => `Drive in bay ${each.bay}`,
    body: each => driveBody(array, each),
    change: accepts(lighting, (wanted, each: DriveEntity) => {
      array.store.commit([array.entry('drives', { ...each, isLit: wanted.LocationIndicatorActive })])
      return undefined
    }),
    ...(nodes === undefined
      ? {}
      : {
          actions: {
            SecureErase: {
              allowable: { SanitizationType: ['BlockErase', 'Overwrite'] },
              accepts: accepts(erasure, ({ SanitizationType }, each: DriveEntity) => ({
                task: nodes.pools.eraseDrive(each.id, SanitizationType === 'Overwrite'),
              })),
            },
          },
        }),
  })
}

function driveBody({ model, clock }: SimulatedArray, each: DriveEntity): Body {
  const { leftOver } = each
  return {
    MediaType: each.media,
    Protocol: each.protocol,
    CapacityBytes: Number(each.capacityBytes),
    RotationSpeedRPM: each.rotationSpeedRpm,
    FormFactor: each.formFactor,
    Manufacturer: model.maker,
    Model: each.model,
    SerialNumber: each.serial,
    Revision: each.firmware,
    Identifiers: [{ DurableNameFormat: 'NAA', DurableName: each.wwn }],
    PredictedMediaLifeLeftPercent: each.lifeLeftPercent,
    HotspareType: each.role === 'spare' ? 'Dedicated' : 'None',
    PhysicalLocation: {
      PartLocation: { LocationType: 'Bay', LocationOrdinalValue: each.bay, ServiceLabel: `Bay ${each.bay}` },
    },
    LocationIndicatorActive: each.isLit,
    Oem: {
      Mirefield: {
        IsBoot: each.isBoot,
        WritesPerDay: each.writesPerDay,
        LeftOver: leftOver && {
          System: leftOver.system,
          LastUsed: leftOver.lastUsedAt,
          Partitions: leftOver.partitions,
        },
      },
    },
    Status: statusOf(each),
    Metrics: {
      PowerOnHours: each.hoursAtStart + Math.floor((clock.now() - Date.UTC(2026, 0, 1)) / 3_600_000),
      ...shownErrors(each, clock.now()),
    },
    Links: {
      Chassis: link(`Chassis/${each.enclosureId}`),
      StoragePools: each.poolId === null ? [] : [link(`Storage/1/StoragePools/${each.poolId}`)],
    },
  }
}

function statusOf({ isPulled, isFailed, role }: DriveEntity) {
  if (isPulled) return { State: 'Absent', Health: 'Critical' }
  if (isFailed) return { State: 'UnavailableOffline', Health: 'Critical' }
  return { State: role === 'spare' ? 'StandbySpare' : 'Enabled', Health: 'OK' }
}

import type { ArrayModel, SimulatedArray } from '../../array'
import { link, status } from '../body'
import { placesOf, type Place } from '../Place'
import type { RowService } from '../RowService'

type Enclosure = SimulatedArray['model']['enclosures'][number]
interface Sensor {
  readonly id: string
  readonly name: string
  readonly reading: number
}

/** Enclosures with their temperatures. */
export function chassisPlaces(array: SimulatedArray, nodes?: RowService): Place[] {
  const { model } = array
  const enclosure = (id: string | undefined) => model.enclosures.find(each => each.id === id)
  /** Warmer, the more of its drives work. */
  const sensors = (id: string | undefined): Sensor[] | undefined => {
    if (enclosure(id) === undefined) return undefined
    const busy = array.all('drives').filter(each => each.enclosureId === id && each.role === 'data').length
    return [
      { id: 'inlet', name: 'Inlet air', reading: 21.5 },
      { id: 'outlet', name: 'Outlet air', reading: 27 + busy * 0.2 },
    ]
  }
  return [...enclosurePlaces(model, nodes), ...sensorPlaces(sensors)]
}

const sensorPlaces = (sensors: (id: string | undefined) => Sensor[] | undefined): Place[] =>
  placesOf<Sensor>({
    path: 'Chassis/:chassis/Sensors/:sensor',
    type: 'Sensor.v1_10_0.Sensor',
    title: 'Sensors',
    members: ({ chassis }) => sensors(chassis),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: ({ reading }) => ({
      ReadingType: 'Temperature',
      ReadingUnits: 'Cel',
      Reading: reading,
      Thresholds: { UpperCaution: { Reading: 40 }, UpperCritical: { Reading: 45 } },
      Status: status(true),
    }),
  })

const enclosurePlaces = (model: ArrayModel, nodes: RowService | undefined): Place[] =>
  placesOf<Enclosure>({
    path: 'Chassis/:chassis',
    type: 'Chassis.v1_25_0.Chassis',
    title: 'Chassis',
    members: () => model.enclosures,
    find: id => model.enclosures.find(each => each.id === id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: ({ id, ...each }) => ({
      ChassisType: each.rack === undefined ? 'StorageEnclosure' : 'RackMount',
      Manufacturer: model.maker,
      Model: each.model,
      SerialNumber: `${model.serial}-${id}`,
      HeightMm: each.heightMm,
      PowerState: 'On',
      IndicatorLED: 'Off',
      Drives: link(`Chassis/${id}/Drives`),
      Sensors: link(`Chassis/${id}/Sensors`),
      ...(each.rack === undefined
        ? {}
        : {
            Location: { Placement: { Rack: each.rack } },
            NetworkAdapters: link(`Chassis/${id}/NetworkAdapters`),
          }),
      Status: status(true),
      Links: {
        Storage: [link('Storage/1')],
        ManagedBy: [link(nodes === undefined ? 'Managers/1' : `Managers/${id}`)],
        ...(nodes === undefined ? {} : { ComputerSystems: [link(`Systems/${id}`)] }),
      },
    }),
  })

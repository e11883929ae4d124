import type { ArrayModel, SimulatedArray } from '../../array'
import { link, status } from '../body'
import { placesOf, type Place } from '../Place'
import { drivePath } from './drives'
import { fileServicesPath } from './fileServices'

type Port = SimulatedArray['model']['ports'][number]

/** The storage service itself with its controllers and their ports. */
export function storagePlaces(array: SimulatedArray): Place[] {
  const { model } = array
  return [
    ...placesOf<SimulatedArray>({
      path: 'Storage/:storage',
      type: 'Storage.v1_17_0.Storage',
      title: 'Storage',
      members: () => [array],
      idOf: () => '1',
      nameOf: () => model.name,
      body: () => {
        const drives = array.all('drives').filter(each => !each.isPulled)
        return {
          Identifiers: [{ DurableNameFormat: 'UUID', DurableName: model.uuid }],
          Controllers: link('Storage/1/Controllers'),
          StoragePools: link('Storage/1/StoragePools'),
          Volumes: link('Storage/1/Volumes'),
          ...(array.blocks.copies === undefined ? {} : { ConsistencyGroups: link('Storage/1/ConsistencyGroups') }),
          ...(model.servesFiles === true
            ? {
                FileSystems: link('Storage/1/FileSystems'),
                Oem: {
                  [model.maker]: { FileServices: link(fileServicesPath), FileServiceUnits: array.fileUnits.all() },
                },
              }
            : {}),
          ...(array.partners.length === 0
            ? {}
            : {
                Oem: { TallisThorne: { Partners: array.partners.map(each => ({ SerialNumber: each.model.serial })) } },
              }),
          Drives: drives.map(each => link(drivePath(each))),
          'Drives@odata.count': drives.length,
          Status: status(true),
          Links: { Enclosures: model.enclosures.map(each => link(`Chassis/${each.id}`)) },
        }
      },
    }),
    ...controllerPlaces(array),
    ...portPlaces(array),
  ]
}

const controllerPlaces = (array: SimulatedArray, model: ArrayModel = array.model): Place[] =>
  placesOf<string>({
    path: 'Storage/1/Controllers/:controller',
    type: 'StorageController.v1_8_0.StorageController',
    title: 'Controllers',
    members: () => model.controllers,
    idOf: id => id,
    nameOf: id => `Controller ${id}`,
    body: id => ({
      Manufacturer: model.maker,
      Model: model.model,
      SerialNumber: `${model.serial}-${id}`,
      FirmwareVersion: model.firmware,
      Ports: link(`Storage/1/Controllers/${id}/Ports`),
      Status: status(!array.isControllerDown(id)),
    }),
  })

const portPlaces = (array: SimulatedArray, model: ArrayModel = array.model): Place[] =>
  placesOf<Port>({
    path: 'Storage/1/Controllers/:controller/Ports/:port',
    type: 'Port.v1_13_0.Port',
    title: 'Ports',
    members: ({ controller = '' }) =>
      model.controllers.includes(controller) ? model.ports.filter(each => each.controller === controller) : undefined,
    idOf: each => each.id,
    nameOf: each => `Port ${each.id}`,
    body: ({ speedGbps, controller }) => ({
      PortProtocol: 'Ethernet',
      CurrentSpeedGbps: speedGbps,
      LinkStatus: array.isControllerDown(controller) ? 'LinkDown' : 'LinkUp',
      Ethernet: { AssociatedMACAddresses: [] },
      Status: status(true),
    }),
  })

import {
  doneRatio,
  type ConnectionEntity,
  type DriveEntity,
  type GroupEntity,
  type PoolEntity,
  type SimulatedArray,
  type TaskEntity,
  type VolumeEntity,
} from '../array'
import { spreadOf } from './spreadOf'

/** What only a row of nodes knows of its pools and volumes. */
export interface RowView {
  readonly poolHealth: (pool: PoolEntity) => 'OK' | 'Warning' | 'Critical'
  readonly lostBytes: (volume: VolumeEntity) => bigint
}

/** Redfish and Swordfish bodies of what an array has. Sources: DMTF DSP8010 schema bundle, SNIA Swordfish 1.2.x. */
type Body = Readonly<Record<string, unknown>>
export const root = '/redfish/v1'
export const link = (path: string) => ({ '@odata.id': `${root}/${path}` })
export const resource = (path: string, type: string, id: string, name: string, rest: Body): Body => ({
  '@odata.id': `${root}${path === '' ? '' : `/${path}`}`,
  '@odata.type': `#${type}`,
  Id: id,
  Name: name,
  ...rest,
})
const status = (isFine: boolean, state = 'Enabled') => ({ State: state, Health: isFine ? 'OK' : 'Critical' })

export const serviceRoot = ({ model }: SimulatedArray, isRow: boolean) =>
  resource('', 'ServiceRoot.v1_16_0.ServiceRoot', 'RootService', 'Root Service', {
    RedfishVersion: '1.19.0',
    UUID: model.uuid,
    Vendor: model.maker,
    Product: model.model,
    ServiceIdentification: model.name,
    ProtocolFeaturesSupported: {
      ExpandQuery: { NoLinks: true, Links: false, ExpandAll: false, Levels: false },
      FilterQuery: false,
    },
    Chassis: link('Chassis'),
    Managers: link('Managers'),
    Storage: link('Storage'),
    Fabrics: link('Fabrics'),
    Tasks: link('TaskService'),
    SessionService: link('SessionService'),
    EventService: link('EventService'),
    UpdateService: link('UpdateService'),
    ...(isRow ? { Systems: link('Systems'), AggregationService: link('AggregationService') } : {}),
    Links: { Sessions: link('SessionService/Sessions') },
  })

export const manager = ({ model, clock }: SimulatedArray) =>
  resource('Managers/1', 'Manager.v1_19_0.Manager', '1', 'Array manager', {
    ManagerType: 'Service',
    UUID: model.uuid,
    FirmwareVersion: model.firmware,
    DateTime: new Date(clock.now()).toISOString(),
    DateTimeLocalOffset: '+00:00',
    Status: status(true),
  })

export const chassis = (array: SimulatedArray, id: string) => {
  const enclosure = array.model.enclosures.find(each => each.id === id)
  return enclosure === undefined
    ? undefined
    : resource(`Chassis/${id}`, 'Chassis.v1_25_0.Chassis', id, enclosure.name, {
        ChassisType: 'StorageEnclosure',
        Manufacturer: array.model.maker,
        Model: enclosure.model,
        SerialNumber: `${array.model.serial}-${id}`,
        HeightMm: enclosure.heightMm,
        Drives: link(`Chassis/${id}/Drives`),
        ...(enclosure.rack === undefined
          ? {}
          : {
              Location: { Placement: { Rack: enclosure.rack } },
              NetworkAdapters: link(`Chassis/${id}/NetworkAdapters`),
              Links: { ComputerSystems: [link(`Systems/${id}`)] },
            }),
        Sensors: link(`Chassis/${id}/Sensors`),
        Status: status(true),
      })
}

export const drive = (array: SimulatedArray, each: DriveEntity) => {
  const hours = each.hoursAtStart + Math.floor((array.clock.now() - Date.UTC(2026, 0, 1)) / 3_600_000)
  return resource(
    `Chassis/${each.enclosureId}/Drives/${each.id}`,
    'Drive.v1_19_0.Drive',
    each.id,
    `Drive in bay ${each.bay}`,
    {
      MediaType: each.media,
      Protocol: each.protocol,
      CapacityBytes: Number(each.capacityBytes),
      RotationSpeedRPM: each.rotationSpeedRpm,
      FormFactor: each.formFactor,
      Manufacturer: array.model.maker,
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
          LeftOver:
            each.leftOver === null
              ? null
              : {
                  System: each.leftOver.system,
                  LastUsed: each.leftOver.lastUsedAt,
                  Partitions: each.leftOver.partitions,
                },
        },
      },
      Status: each.isFailed
        ? { State: 'UnavailableOffline', Health: 'Critical' }
        : { State: each.role === 'spare' ? 'StandbySpare' : 'Enabled', Health: 'OK' },
      Metrics: { PowerOnHours: hours },
      Links: { StoragePools: each.poolId === null ? [] : [link(`Storage/1/StoragePools/${each.poolId}`)] },
    },
  )
}

export const storage = ({ model }: SimulatedArray) =>
  resource('Storage/1', 'Storage.v1_17_0.Storage', '1', model.name, {
    Identifiers: [{ DurableNameFormat: 'UUID', DurableName: model.uuid }],
    Controllers: link('Storage/1/Controllers'),
    StoragePools: link('Storage/1/StoragePools'),
    Volumes: link('Storage/1/Volumes'),
    Status: status(true),
    Links: { Enclosures: model.enclosures.map(each => link(`Chassis/${each.id}`)) },
  })

export const controller = ({ model }: SimulatedArray, id: string) =>
  resource(`Storage/1/Controllers/${id}`, 'StorageController.v1_8_0.StorageController', id, `Controller ${id}`, {
    Manufacturer: model.maker,
    Model: model.model,
    SerialNumber: `${model.serial}-${id}`,
    FirmwareVersion: model.firmware,
    Ports: link(`Storage/1/Controllers/${id}/Ports`),
    Status: status(true),
  })

export const port = ({ model }: SimulatedArray, id: string) => {
  const found = model.ports.find(each => each.id === id)
  return found === undefined
    ? undefined
    : resource(`Storage/1/Controllers/${found.controller}/Ports/${id}`, 'Port.v1_13_0.Port', id, `Port ${id}`, {
        PortProtocol: 'Ethernet',
        CurrentSpeedGbps: found.speedGbps,
        LinkStatus: 'LinkUp',
        Ethernet: { AssociatedMACAddresses: [] },
        Status: status(true),
      })
}

export const pool = (array: SimulatedArray, each: PoolEntity, row?: RowView) => {
  const drives = new Map(array.all('drives').map(entity => [entity.id, entity]))
  const driveLink = (id: string) => link(`Chassis/${drives.get(id)?.enclosureId ?? '0'}/Drives/${id}`)
  const isHurt = each.groups.flat().some(id => drives.get(id)?.isFailed === true)
  const health = row === undefined ? (isHurt ? 'Warning' : 'OK') : row.poolHealth(each)
  return resource(`Storage/1/StoragePools/${each.id}`, 'StoragePool.v1_9_1.StoragePool', each.id, each.name, {
    Description: each.description,
    SupportedRAIDTypes: each.spread === null ? [each.raidType] : [],
    ...(each.spread === null ? {} : { Oem: spreadOf(array, each.id) }),
    Capacity: {
      Data: {
        AllocatedBytes: Number(each.usableBytes),
        ConsumedBytes: Number(array.poolWrittenBytes(each.id)),
        ProvisionedBytes: Number(array.poolProvisionedBytes(each.id)),
      },
      Metadata: { AllocatedBytes: Number(each.metadataBytes) },
      Snapshot: { GuaranteedBytes: Number(each.snapshotReserveBytes) },
    },
    CapacitySources: each.groups.map((group, index) => ({
      '@odata.id': `${root}/Storage/1/StoragePools/${each.id}#/CapacitySources/${index}`,
      '@odata.type': '#Capacity.v1_3_0.CapacitySource',
      Id: `${index}`,
      Name: `RAID group ${index + 1}`,
      ProvidingDrives: { Members: group.map(driveLink) },
    })),
    Links: { DedicatedSpareDrives: each.spares.map(driveLink) },
    Status: { State: each.isReady ? 'Enabled' : 'Starting', Health: health },
  })
}

export const volume = (array: SimulatedArray, each: VolumeEntity, row?: RowView) =>
  resource(`Storage/1/Volumes/${each.id}`, 'Volume.v1_10_1.Volume', each.id, each.name, {
    DisplayName: each.name,
    Description: each.description,
    Identifiers: [{ DurableNameFormat: 'NAA', DurableName: each.naa }],
    CapacityBytes: Number(each.sizeBytes),
    ProvisioningPolicy: each.isThin ? 'Thin' : 'Fixed',
    Capacity: { Data: { ConsumedBytes: Number(array.writtenBytes(each)), ProvisionedBytes: Number(each.sizeBytes) } },
    CapacitySources: [
      { Id: '0', Name: 'Source', ProvidingPools: { Members: [link(`Storage/1/StoragePools/${each.poolId}`)] } },
    ],
    ...(row === undefined ? {} : { Oem: { Mirefield: { LostBytes: Number(row.lostBytes(each)) } } }),
    Status: { State: each.isReady ? 'Enabled' : 'Starting', Health: 'OK' },
  })

export const initiatorEndpoint = (id: string, initiator: string) =>
  resource(`Fabrics/SAN/Endpoints/${id}`, 'Endpoint.v1_8_1.Endpoint', id, initiator, {
    EndpointProtocol: 'iSCSI',
    ConnectedEntities: [{ EntityRole: 'Initiator' }],
    Identifiers: [{ DurableNameFormat: 'iQN', DurableName: initiator }],
    Status: status(true),
  })

export const targetEndpoint = ({ model }: SimulatedArray, portId: string) => {
  const found = model.ports.find(each => each.id === portId)
  return resource(
    `Fabrics/SAN/Endpoints/target-${portId}`,
    'Endpoint.v1_8_1.Endpoint',
    `target-${portId}`,
    `Target on port ${portId}`,
    {
      EndpointProtocol: 'iSCSI',
      ConnectedEntities: [{ EntityRole: 'Target' }],
      Identifiers: [{ DurableNameFormat: 'iQN', DurableName: found?.target ?? '' }],
      IPTransportDetails: [{ IPv4Address: { Address: found?.address ?? '' }, Port: 3260, TransportProtocol: 'TCP' }],
      Status: status(true),
    },
  )
}

export const endpointGroup = (each: GroupEntity) =>
  resource(`Fabrics/SAN/EndpointGroups/${each.id}`, 'EndpointGroup.v1_3_4.EndpointGroup', each.id, each.name, {
    Description: each.description,
    GroupType: 'Client',
    Endpoints: each.endpointIds.map(id => link(`Fabrics/SAN/Endpoints/${id}`)),
  })

export const connection = (each: ConnectionEntity) =>
  resource(`Fabrics/SAN/Connections/${each.id}`, 'Connection.v1_3_1.Connection', each.id, `Mapping ${each.id}`, {
    Description: each.description,
    ConnectionType: 'Storage',
    VolumeInfo: [
      { AccessCapabilities: ['Read', 'Write'], Volume: link(`Storage/1/Volumes/${each.volumeId}`), LUN: each.lun },
    ],
    Links: { InitiatorEndpointGroups: [link(`Fabrics/SAN/EndpointGroups/${each.groupId}`)] },
  })

export const task = (each: TaskEntity) =>
  resource(`TaskService/Tasks/${each.id}`, 'Task.v1_7_4.Task', each.id, each.name, {
    TaskState: each.state,
    TaskStatus: each.state === 'Exception' ? 'Critical' : 'OK',
    StartTime: new Date(each.startedAt).toISOString(),
    ...(each.endedAt === null ? {} : { EndTime: new Date(each.endedAt).toISOString() }),
    PercentComplete: Math.floor(doneRatio(each) * 100),
    Payload: { HttpOperation: each.method, TargetUri: each.targetUri, JsonBody: each.jsonBody },
    Messages:
      each.message === ''
        ? []
        : [{ MessageId: 'StorageDevice.1.2.OperationFailure', Message: each.message, Severity: 'Critical' }],
    Links: { CreatedResources: [{ '@odata.id': each.resultUri }] },
    ...(each.work === 'rebuild-pieces' || each.work === 'move-pieces'
      ? { Oem: { Mirefield: { Work: each.work, Bytes: (JSON.parse(each.jsonBody) as { bytes?: number }).bytes ?? 0 } } }
      : {}),
  })

/** Temperatures of an enclosure, warmer the more of its drives work. */
export const sensors = (array: SimulatedArray, enclosureId: string) => {
  const busy = array.all('drives').filter(each => each.enclosureId === enclosureId && each.role === 'data').length
  return [
    ['inlet', 'Inlet air', 21.5],
    ['outlet', 'Outlet air', 27 + busy * 0.2],
  ].map(([id, name, reading]) =>
    resource(`Chassis/${enclosureId}/Sensors/${id}`, 'Sensor.v1_10_0.Sensor', String(id), String(name), {
      ReadingType: 'Temperature',
      ReadingUnits: 'Cel',
      Reading: reading,
      Thresholds: { UpperCaution: { Reading: 40 }, UpperCritical: { Reading: 45 } },
      Status: status(true),
    }),
  )
}

export const firmware = ({ model }: SimulatedArray, controllerId: string) =>
  resource(
    `UpdateService/FirmwareInventory/${controllerId}`,
    'SoftwareInventory.v1_10_2.SoftwareInventory',
    controllerId,
    `Firmware of controller ${controllerId}`,
    {
      Version: model.firmware,
      Updateable: true,
      RelatedItem: [link(`Storage/1/Controllers/${controllerId}`)],
      Status: status(true),
    },
  )

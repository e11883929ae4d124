export type {
  StorageSystem,
  SystemTask,
  Made,
  PoolWanted,
  VolumeWanted,
  VolumeSeen,
  PoolSeen,
  MappingMade,
  MappingSeen,
} from './StorageSystem'
export type { Inventory, SystemIdentity, SensorReading } from './Inventory'
export type { Host, HostDevice, HostIdentity } from './Host'
export type { ChangePorts, EstateWriter } from './ChangePorts'

export type {
  StorageSystem,
  SystemTask,
  PoolWanted,
  VolumeWanted,
  VolumeSeen,
  PoolSeen,
  MappingMade,
  MappingExpected,
  MappingSeen,
} from './StorageSystem'
export type {
  BankWanted,
  ClusterPoolWanted,
  ClusterSeen,
  InterfaceSeen,
  InterfaceWanted,
  NodeRow,
  PoolWork,
} from './NodeRow'
export type { Made } from './Made'
export type { NodeAgent } from './NodeAgent'
export type { NameServer, NamesFound } from './NameServer'
export type { Inventory, InventoryParts, SystemIdentity, SensorReading } from './Inventory'
export type { Host, HostDevice, HostIdentity } from './Host'
export type { ChangePorts, EstateWriter } from './ChangePorts'

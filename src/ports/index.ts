export type { Ears, StorageSystem } from './StorageSystem'
export type * from './resources'
export { RequestRefused } from './RequestRefused'
export { NotOffered } from './NotOffered'
export type { Delivered, Teller } from './Teller'
export type { DirectoryIdentity, DirectoryReader, DirectoryReading, PrincipalSeen } from './DirectoryReader'
export type { Made } from './Made'
export type { NodeAgent } from './NodeAgent'
export type { NameServer, NamesFound } from './NameServer'
export type { Inventory, InventoryParts, SystemIdentity, SensorReading } from './Inventory'
export {
  fileSystems,
  type FileSystem,
  type HostFileSystem,
  type Host,
  type HostDevice,
  type HostIdentity,
  type Attempt,
  type Connected,
  type FilePart,
  type HostShares,
  type ListedPage,
} from './Host'
export type { FileCaller, SignedInCaller } from './Caller'
export type { HostNetwork, HostResolver, ShareTried } from './HostNetwork'
export type { ChangePorts, EstateWriter, HostSignIn } from './ChangePorts'

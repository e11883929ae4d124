export { pathBetween, type Hop, type Wiring } from './path'
export { readPath, type PathAnswer, type PathReading, type PathVerdict } from './readPath'
export { consecutiveAddresses, inOneSubnet, plainAddress, readAddress, type Subnetted } from './addresses'
export { reverseName } from './reverseName'
export { storageShare } from './storageShare'
export {
  movedPaths,
  takeOverScripts,
  takeOverSeconds,
  takeOverTrouble,
  type MovedPath,
  type TakenName,
} from './takeOver'
export { namesOfAddresses } from './nameOfAddress'
export { nameTrouble } from './nameTrouble'
export { failingPaths, pathMatrix, storagePort, type PathCell } from './pathMatrix'
export { whyBarred, wrongNetwork } from './reachable'
export { modifyScript } from './ldif'
export {
  connectionHops,
  filePorts,
  isBarredOnTheWay,
  kindOfAddress,
  wayOut,
  type ConnectionHop,
  type Reached,
  type Tried,
  type WayFound,
  type WayOut,
} from './connection'
export { domainTrouble, isWithin, serverTrouble } from './domains'

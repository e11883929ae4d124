export type { ServerColumn } from './ServerColumn'
export { ServerTable } from './ServerTable'
export type { ServerPage } from './useServerPages'
export { useAddress } from './useAddress'

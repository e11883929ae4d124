export { DriveTable } from './DriveTable'
export { SystemBays } from './SystemBays'

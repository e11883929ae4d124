export { DriveTable } from './DriveTable'
export { groupColour } from './groupColours'
export { SystemBays } from './SystemBays'

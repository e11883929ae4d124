export { groupColour } from './groupColours'
export { SystemBays } from './SystemBays'

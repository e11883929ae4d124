export { SystemBays } from './SystemBays'

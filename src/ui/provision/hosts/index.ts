export { DisksSeen, Ways } from './Ways'

export { DisksSeen, Ways } from './Ways'
export { Unknown } from './Unknown'

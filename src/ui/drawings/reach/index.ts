export { ReachBars } from './ReachBars'
export { reachAxis, type ReachAxis } from './reachBlocks'

export { AddLane } from './AddLane'
export { BoardLanes } from './BoardLanes'
export { BoardTools } from './BoardTools'
export { LaneMargin } from './LaneMargin'

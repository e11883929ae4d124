export { boardQuery, readBoard, type Board, type LaneAsked } from './boardAddress'
export { onGrid } from './onGrid'
export { usualBand, leavesBand, type Band, type Left } from './usualBand'
export { movesWith, type Moving } from './movesWith'

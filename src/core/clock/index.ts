export { estateTime, type EstateClock } from './estateTime'
export { leastOffset } from './leastOffset'

export { estateTime, type EstateClock } from './estateTime'

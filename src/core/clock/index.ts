export { agreedClock, clocksApart, isSameClock, rateOf, type ClockApart, type ClockReading } from './agreedClock'
export { estateTime, type EstateClock } from './estateTime'
export { leastOffset } from './leastOffset'

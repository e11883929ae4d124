export { errorTrend, type ErrorTrend } from './errorTrend'
export { sensorState, type Sensed } from './sensorState'
export { daysToWearOut } from './wearOut'

export { sensorState, type Sensed } from './sensorState'
export { daysToWearOut } from './wearOut'

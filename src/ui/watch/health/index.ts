export { Drives, Sensors, Sources } from './HealthTables'
export { healthSentence } from './healthWords'

export { VolumeFilter } from './VolumeFilter'
export { VolumeTable } from './VolumeTable'

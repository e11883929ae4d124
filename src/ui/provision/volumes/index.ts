export { VolumeMargin } from './VolumeMargin'
export { VolumeTable } from './VolumeTable'

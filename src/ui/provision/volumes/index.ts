export { VolumeTable } from './VolumeTable'

export { SpaceBar } from './SpaceBar'

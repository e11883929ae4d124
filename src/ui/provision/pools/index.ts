export { PoolStand } from './PoolStand'

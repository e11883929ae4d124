export { PoolRoom } from './PoolRoom'

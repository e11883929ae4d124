export { keyAt, ownKey, seal, unseal } from './seal'

export { keyAt, seal, unseal } from './seal'

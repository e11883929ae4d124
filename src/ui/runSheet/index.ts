export { RunSheet } from './RunSheet'

export { identifySystem, lookAtSystem } from './lookAtSystem'
export { lookUpNames } from './lookUpNames'
export { probeRow } from './probeRow'

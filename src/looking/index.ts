export { identifySystem, lookAtSystem } from './lookAtSystem'
export { lookAtDirectory } from './lookAtDirectory'
export { lookUpNames } from './lookUpNames'
export { probeRow } from './probeRow'

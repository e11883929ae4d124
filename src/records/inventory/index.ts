export { storeInventory } from './storeInventory'
export {
  enrolHost,
  enrolSystem,
  keepProbe,
  noteReach,
  probeAccess,
  systemAccess,
  systemIds,
  type SystemAccess,
} from './systems'
export { hold, idAt, release } from './objects'
export { estateClock, noteClock } from './clock'
export { dropCatalogue, keepCatalogue, keepNameAnswers, keepPathProbe, signException, withdrawException } from './nodes'
export { keepFindings } from './findings'
export { isWorkKnown, keepNewWork, noteWork, workMisses } from './rebuilds'

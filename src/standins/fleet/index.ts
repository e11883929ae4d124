export { Store, type Entry } from './Store'
export { FleetClock } from './FleetClock'
export { Faults, faultKinds, type Fault, type FaultKind } from './Faults'
export { seededHex, seededNumber, seededUuid } from './seeded'

export { outOfBounds, type Bounds } from './bounded'
export { formats } from './formats'
export { isStorable, isUuid, storable, wholeNumber } from './storable'

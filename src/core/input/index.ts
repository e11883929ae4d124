export { outOfBounds, type Bounds } from './bounded'
export { formats } from './formats'
export { later } from './later'
export { isStorable, isUuid, storable, wholeNumber } from './storable'

export { BayField } from './BayField'
export { readBays, type BayGroup } from './fieldLayout'
export type { FieldMark } from './drawBays'
export { groupsOf } from './groupsOf'

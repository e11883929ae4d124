export type { ChangeKind, Evidence, Facts } from './ChangeKind'
export { planIntent } from './planIntent'
export { readIntent } from './readIntent'
export { kindNamed, kinds } from './register'

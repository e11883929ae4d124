export { redfishSystem } from './redfishSystem'
export { lookAt, type FirstLook } from './lookAt'
export type { Credentials } from './Connection'
export { NoStorageSystem, RequestRefused, SignInRefused } from './errors'

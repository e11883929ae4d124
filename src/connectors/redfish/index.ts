import { redfishSystem } from './redfishSystem'
import { identify, lookAt } from './service/lookAt'

/** Systems that speak Redfish and Swordfish. */
export const redfish = { identify, lookAt, reach: redfishSystem }

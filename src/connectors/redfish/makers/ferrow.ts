import { ceilingProperties, ceilings } from './ceilings'
import { fileParts } from './fileParts'
import { endpointPart, signIns } from './signIns'
import type { Maker } from './Maker'

/** Arrays of the maker Ferrow: they serve files, and take limits of volumes. */
export const ferrow: Maker = {
  ...fileParts,
  ...ceilings,
  ...signIns,
  parts: { ...fileParts.parts, volume: { type: 'object', properties: ceilingProperties }, endpoint: endpointPart },
}

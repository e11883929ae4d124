import type { SimulatedArray } from '../../array'
import type { Place } from '../Place'
import type { RowService } from '../RowService'
import type { Sessions } from '../sessions'
import { accessPlaces } from './access'
import { aggregatePlaces } from './aggregates'
import { consistencyPlaces } from './consistencyGroups'
import { chassisPlaces } from './chassis'
import { drivePlaces } from './drives'
import { fabricPlaces } from './fabrics'
import { fileServicePlaces } from './fileServices'
import { fileSystemPlaces } from './fileSystems'
import { managerPlaces } from './managers'
import { poolPlaces } from './pools'
import { rootBody, rootType, servicePlaces } from './services'
import { storagePlaces } from './storage'
import { systemPlaces } from './systems'
import { taskPlaces } from './tasks'
import { telemetryPlaces } from './telemetry'
import { volumePlaces } from './volumes'

/** Everything that the service of an array, or of a row of nodes, has. A new resource is a file beside these and a line here. */
export const allPlaces = (array: SimulatedArray, sessions: Sessions, nodes?: RowService): Place[] => [
  { path: '', type: rootType, show: () => rootBody(array, nodes !== undefined) },
  ...servicePlaces(array, sessions),
  ...taskPlaces(array),
  ...telemetryPlaces(array),
  ...managerPlaces(array, nodes),
  ...chassisPlaces(array, nodes),
  ...drivePlaces(array, nodes),
  ...storagePlaces(array),
  ...poolPlaces(array, nodes),
  ...volumePlaces(array, nodes),
  ...(array.blocks.copies === undefined ? [] : consistencyPlaces(array)),
  ...(array.model.servesFiles === true ? [...fileServicePlaces(array), ...fileSystemPlaces(array)] : []),
  ...fabricPlaces(nodes),
  ...accessPlaces(array),
  ...(nodes === undefined ? [] : [...systemPlaces(nodes), ...aggregatePlaces(nodes.row)]),
]

export { balancedPlacement } from './balancedPlacement'
export { placer, type Placer, type PlacementDomain, type PlacementDrive } from './placer'
export { movedPieces } from './movedPieces'
export {
  evacuation,
  type EvacuationAnswer,
  type EvacuationDrive,
  type EvacuationMode,
  type EvacuationRequest,
} from './evacuation'
export { TooFewPlaces } from './errors'

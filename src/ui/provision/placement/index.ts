export { PlacementBoard } from './PlacementBoard'

export { startFleet, type Fleet, type FleetPorts } from './startFleet'

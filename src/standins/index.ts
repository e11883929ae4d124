export { anyPorts, startFleet, type Fleet, type FleetPorts } from './startFleet'

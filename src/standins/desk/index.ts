export { NightDesk, type DeskPorts, type Received } from './NightDesk'

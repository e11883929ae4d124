export { connected, stops, type Connected, type Part, type Stop, type Thread } from './threads'

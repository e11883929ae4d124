export { Layers, type Layer } from './Layers'

export { KindTable } from './KindTable'
export { ObjectFacts } from './ObjectFacts'

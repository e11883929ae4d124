export { Ladder } from './Ladder'
export { rungText } from './rungText'

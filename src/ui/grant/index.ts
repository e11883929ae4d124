export { WhoCanMatrix } from './WhoCanMatrix'

export { NotReached } from '../http/errors'

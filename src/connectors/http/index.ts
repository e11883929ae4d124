export { exchange, type Endpoint, type Exchanged } from './exchange'
export { UnreadableAnswer } from './errors'

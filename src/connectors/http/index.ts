export { exchange, urlWithin, type Exchanged } from './exchange'
export { ReadingUnbounded, UnreadableAnswer } from './errors'
export { endOf, judgedAgent, openAddress, type Endpoint } from './judgedAgent'

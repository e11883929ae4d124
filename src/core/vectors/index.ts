export { answerCase, isKnownSubject } from './answerCase'
export { firstDifference } from './firstDifference'
export { UnknownSubject } from './errors'

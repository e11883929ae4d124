export { answerCase } from './answerCase'
export { firstDifference } from './firstDifference'
export { UnknownSubject } from './errors'

export {
  addAdministrator,
  addFirstAdministrator,
  administratorCount,
  administrators,
  firstCode,
  passwordHashOf,
  removeAdministrator,
  setPasswordHash,
  type Administrator,
} from './administrators'
export { countAttempt, succeeded, waitSeconds, type Attempt } from './attempts'
export { administratorOf, closeOtherSessions, closeSession, isSessionOpen, openSession } from './sessions'
export { bearerOf, isTokenKnown, makeToken, revokeToken, tokensOf } from './tokens'

export {
  addAdministrator,
  addFirstAdministrator,
  administratorCount,
  administrators,
  firstCode,
  passwordHashOf,
  removeAdministrator,
  type Administrator,
} from './administrators'
export { administratorOf, closeSession, noteAttempt, openSession, recentFailures } from './sessions'
export { bearerOf, makeToken, revokeToken, tokensOf } from './tokens'

export { Account } from './Account'
export { SignInForm, WelcomeForm } from './CredentialsForm'
export { AuditTable } from './AuditTable'

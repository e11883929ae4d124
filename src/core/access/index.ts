export { passwordRules, sameRule } from './passwordRules'

export { GateLines } from './GateLines'
export { RootAfterRules } from './RootAfterRules'
export { RulesTable } from './RulesTable'
export { WhoCan } from './WhoCan'

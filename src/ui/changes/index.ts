export { ChangeActions } from './ChangeActions'
export { ChangeState } from './ChangeState'
export { Evidence } from './Evidence'
export { HostCommands } from './HostCommands'

export { NetworkDrawing } from './NetworkDrawing'
export { ProbeMatrix } from './ProbeMatrix'
export { SetStorageNetwork } from './SetStorageNetwork'
export { SetNodeClock, SetRestartService, SetSwitchPort } from './NodeDrafts'

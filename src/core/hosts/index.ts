export { linuxCommands, type LinuxCommands } from './linuxCommands'
export { initiatorName, type InitiatorName } from './initiatorName'
export { readHostLines, type HostLineAsked, type ReadHostLines } from './hostLines'
export { mountCommands, type MountedShare } from './mountCommands'

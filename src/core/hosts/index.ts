export { linuxCommands, type LinuxCommands } from './linuxCommands'
export { initiatorName, type InitiatorName } from './initiatorName'
export { readHostLines, type HostLineAsked, type ReadHostLines } from './hostLines'
export { mountCommands, smbCommands, type MountedShare } from './mountCommands'

export { linuxCommands, type LinuxCommands } from './linuxCommands'

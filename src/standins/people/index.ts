export { baseDn, DirectoryTree, type DirectoryEntry, type KnownAccount } from './DirectoryTree'
export { DirectoryServer } from './DirectoryServer'

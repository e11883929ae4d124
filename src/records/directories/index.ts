export { directoriesDue, directoryById, noteDirectory, storePrincipals } from './directories'

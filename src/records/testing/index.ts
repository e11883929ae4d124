export { enrolled } from './enrolled'
export { copiedDatabase, emptyDatabase, freshDatabase, madeOnce } from './freshDatabase'
export { sampleDriveFound, sampleInventory } from './sampleInventory'

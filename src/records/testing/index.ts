export { enrolled } from './enrolled'
export { emptyDatabase, freshDatabase } from './freshDatabase'
export { sampleDriveFound, sampleInventory } from './sampleInventory'

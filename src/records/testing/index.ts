export { enrolled } from './enrolled'
export { freshDatabase } from './freshDatabase'
export { sampleDriveFound, sampleInventory } from './sampleInventory'

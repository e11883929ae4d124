export { lossProbability, meanHoursToLoss, poolLossProbability, yearHours, type RedundantGroup } from './lossChain'
export { poolDurability, reliabilityByMedia, type DriveReliability, type PoolDurability } from './poolDurability'

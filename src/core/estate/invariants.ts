import type { Estate } from './Estate'

/** A rule of the model that the records break, with the object that breaks it. */
export interface BrokenInvariant {
  readonly rule:
    | 'drive-in-one-pool'
    | 'bay-held-once'
    | 'mapping-has-volume'
    | 'pool-adds-up'
    | 'volume-in-its-system'
    | 'written-within-size'
  readonly objectId: string
  readonly why: string
}

/** Checks that what was read from a system can be true; a system that states otherwise is not to be planned on. */
export function brokenInvariants(estate: Estate): BrokenInvariant[] {
  const pools = new Map(estate.pools.map(pool => [pool.id, pool]))
  const volumes = new Set(estate.volumes.map(volume => volume.id))
  const bays = new Map<string, string>()
  const broken: BrokenInvariant[] = []
  for (const drive of estate.drives) {
    if ((drive.role === 'unassigned') !== (drive.poolId === null)) {
      broken.push({
        rule: 'drive-in-one-pool',
        objectId: drive.id,
        why: `${drive.name} is ${drive.role} but ${drive.poolId === null ? 'in no' : 'in a'} pool.`,
      })
    }
    const bay = `${drive.enclosureId}/${drive.bay}`
    const other = bays.get(bay)
    if (drive.enclosureId !== null && other !== undefined) {
      broken.push({
        rule: 'bay-held-once',
        objectId: drive.id,
        why: `${drive.name} and ${other} are both said to stand in bay ${drive.bay}.`,
      })
    }
    bays.set(bay, drive.name)
  }
  for (const pool of estate.pools) {
    const sum = pool.usableBytes + pool.redundancyBytes + pool.strandedBytes + pool.spareBytes
    if (sum > pool.rawBytes)
      broken.push({ rule: 'pool-adds-up', objectId: pool.id, why: `The parts of ${pool.name} exceed its raw bytes.` })
  }
  for (const volume of estate.volumes) {
    if (pools.get(volume.poolId)?.systemId !== volume.systemId) {
      broken.push({
        rule: 'volume-in-its-system',
        objectId: volume.id,
        why: `${volume.name} and its pool are said to be of different systems.`,
      })
    }
    if (volume.writtenBytes > volume.sizeBytes) {
      broken.push({
        rule: 'written-within-size',
        objectId: volume.id,
        why: `${volume.name} is said to hold more than its size.`,
      })
    }
  }
  for (const mapping of estate.mappings) {
    if (estate.volumes.length > 0 && mapping.volumeId !== null && !volumes.has(mapping.volumeId)) {
      broken.push({
        rule: 'mapping-has-volume',
        objectId: mapping.id,
        why: `A mapping to ${mapping.groupName} leads to no known volume.`,
      })
    }
  }
  return broken
}

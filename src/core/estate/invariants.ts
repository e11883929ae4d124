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
export const brokenInvariants = (estate: Estate): BrokenInvariant[] => [
  ...brokenByDrives(estate),
  ...brokenByPools(estate),
  ...brokenByVolumes(estate),
  ...brokenByMappings(estate),
]

function brokenByDrives({ drives }: Estate): BrokenInvariant[] {
  const bays = new Map<string, string>()
  return drives.flatMap(({ id, name, role, poolId, enclosureId, bay }): BrokenInvariant[] => {
    const place = `${enclosureId}/${bay}`
    const other = enclosureId === null ? undefined : bays.get(place)
    bays.set(place, name)
    const isAstray = (role === 'unassigned') !== (poolId === null)
    const said = `${name} is ${role} but ${poolId === null ? 'in no' : 'in a'} pool.`
    const twice = `${name} and ${other} are both said to stand in bay ${bay}.`
    return [
      ...(isAstray ? [{ rule: 'drive-in-one-pool', objectId: id, why: said } as const] : []),
      ...(other === undefined ? [] : [{ rule: 'bay-held-once', objectId: id, why: twice } as const]),
    ]
  })
}

const brokenByPools = ({ pools }: Estate): BrokenInvariant[] =>
  pools
    .filter(
      ({ rawBytes, usableBytes, redundancyBytes, strandedBytes, spareBytes }) =>
        usableBytes + redundancyBytes + strandedBytes + spareBytes > rawBytes,
    )
    .map(({ id, name }) => ({ rule: 'pool-adds-up', objectId: id, why: `The parts of ${name} exceed its raw bytes.` }))

function brokenByVolumes({ volumes, pools }: Estate): BrokenInvariant[] {
  const systemOf = new Map(pools.map(pool => [pool.id, pool.systemId]))
  return volumes.flatMap(({ id, name, poolId, systemId, writtenBytes, sizeBytes }): BrokenInvariant[] => [
    ...(systemOf.get(poolId) === systemId
      ? []
      : [
          {
            rule: 'volume-in-its-system',
            objectId: id,
            why: `${name} and its pool are said to be of different systems.`,
          } as const,
        ]),
    ...(writtenBytes <= sizeBytes
      ? []
      : [{ rule: 'written-within-size', objectId: id, why: `${name} is said to hold more than its size.` } as const]),
  ])
}

function brokenByMappings({ mappings, volumes }: Estate): BrokenInvariant[] {
  const known = new Set(volumes.map(volume => volume.id))
  return mappings
    .filter(({ volumeId }) => volumes.length > 0 && volumeId !== null && !known.has(volumeId))
    .map(({ id, groupName }) => ({
      rule: 'mapping-has-volume',
      objectId: id,
      why: `A mapping to ${groupName} leads to no known volume.`,
    }))
}

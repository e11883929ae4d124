import type { Made, PoolSeen, PoolWanted } from '@/ports'
import type { Connection } from './Connection'
import { NoSuchLayout } from './errors'
import { keyMark } from './keyMark'
import { groupsOf, raidTypeOf, sparesOf } from './readPools'
import { isPool } from './schemas'
import { madeBy, taskMaking } from './tasks'

const reference = (locator: string) => ({ '@odata.id': locator })

export async function poolByKey(connection: Connection, pools: string, key: string): Promise<Made | undefined> {
  const found = (await connection.members(pools, isPool)).find(pool => pool.Description?.includes(keyMark(key)))
  if (found === undefined) return undefined
  return { locator: found['@odata.id'], task: await taskMaking(connection, found['@odata.id']) }
}

/** Source: Swordfish, StoragePool; one capacity source for each RAID group. */
export async function createPool(
  connection: Connection,
  pools: string,
  wanted: PoolWanted,
  key: string,
): Promise<Made> {
  const raidType = raidTypeOf(wanted.scheme)
  if (raidType === undefined) throw new NoSuchLayout(connection.endpoint.address)
  const answer = await connection.change('POST', pools, {
    Name: wanted.name,
    Description: keyMark(key),
    SupportedRAIDTypes: [raidType],
    CapacitySources: wanted.groups.map(group => ({ ProvidingDrives: { Members: group.map(reference) } })),
    Capacity: { Snapshot: { AllocatedPercent: wanted.snapshotReserveRatio * 100 } },
    Links: { DedicatedSpareDrives: wanted.spares.map(reference) },
  })
  return madeBy(connection, answer)
}

export async function poolAt(connection: Connection, locator: string): Promise<PoolSeen | undefined> {
  const pool = await connection.readIfThere(locator, isPool)
  return pool === undefined
    ? undefined
    : {
        locator,
        name: pool.Name,
        isReady: pool.Status.State === 'Enabled',
        usableBytes: BigInt(pool.Capacity.Data.AllocatedBytes ?? 0),
        driveLocators: [...groupsOf(pool).flat(), ...sparesOf(pool)],
      }
}

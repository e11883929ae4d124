import type { Made, PoolSeen, PoolWanted } from '@/ports'
import type { Connection } from './Connection'
import { NoSuchLayout, OtherObject } from './errors'
import { keyMark } from './keyMark'
import { groupsOf, raidTypeOf, sparesOf } from './readPools'
import { isPool } from './schemas'
import { madeBy, taskMaking } from './tasks'
import { withSources } from './sources'
import { unlessGone } from './unlessGone'

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

/** A pool that is gone already is removed. @throws {OtherObject} where another stands there */
export async function removePool(connection: Connection, locator: string, expectedName: string): Promise<void> {
  await unlessGone(async () => {
    const { found, etag } = await connection.readTagged(locator, isPool)
    if (found.Name !== expectedName) throw new OtherObject(locator, expectedName, found.Name)
    await connection.change('DELETE', locator, undefined, etag)
  })
}

export async function poolAt(connection: Connection, locator: string): Promise<PoolSeen | undefined> {
  const stated = await connection.readIfThere(locator, isPool)
  const pool = stated === undefined ? undefined : await withSources(connection, stated)
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

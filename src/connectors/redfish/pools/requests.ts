import type { Pools } from '@/ports'
import { NoSuchLayout } from '../errors'
import { changeNamed } from '../changeNamed'
import { keyMark } from '../keyMark'
import { reference, type Offer } from '../Reach'
import { madeBy, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { groupsOf, raidTypeOf, sparesOf } from './read'
import { isPool } from './schema'
import { withSources } from './sources'

/** Pools of a system; those made here have one capacity source for each RAID group. Source: Swordfish, StoragePool. */
export const pools: Offer<'pools'> = ({ connection, map }): Pools => ({
  async byKey(key) {
    const all = await connection.members(map.pools, isPool)
    const found = all.find(pool => pool.Description?.includes(keyMark(key)))
    if (found === undefined) return undefined
    return { locator: found['@odata.id'], task: await taskMaking(connection, map.tasks, found['@odata.id']) }
  },
  async create(wanted, key) {
    const raidType = raidTypeOf(wanted.scheme)
    if (raidType === undefined) throw new NoSuchLayout(connection.endpoint.address)
    const answer = await connection.change('POST', map.pools, {
      Name: wanted.name,
      Description: keyMark(key),
      SupportedRAIDTypes: [raidType],
      CapacitySources: wanted.groups.map(group => ({ ProvidingDrives: { Members: group.map(reference) } })),
      Capacity: { Snapshot: { AllocatedPercent: wanted.snapshotReserveRatio * 100 } },
      Links: { DedicatedSpareDrives: wanted.spares.map(reference) },
    })
    return madeBy(connection, answer)
  },
  async at(locator) {
    const stated = await connection.readIfThere(locator, isPool)
    if (stated === undefined) return undefined
    const pool = await withSources(connection, stated)
    return {
      locator,
      name: pool.Name,
      isReady: pool.Status.State === 'Enabled',
      usableBytes: BigInt(pool.Capacity.Data.AllocatedBytes ?? 0),
      driveLocators: [...groupsOf(pool).flat(), ...sparesOf(pool)],
    }
  },
  // A pool that is gone already is removed.
  remove: (locator, expectedName) =>
    unlessGone(async () => {
      await changeNamed(connection, locator, isPool, expectedName, () => ({ method: 'DELETE' }))
    }),
})

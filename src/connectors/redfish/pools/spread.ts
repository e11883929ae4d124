import { NotOffered, type SpreadPools } from '@/ports'
import { keyMark } from '../keyMark'
import { ofMaker } from '../makers'
import { reference, type Offer } from '../Reach'
import { madeBy, readTask, taskIn, taskMaking } from '../tasks/requests'
import { isTask } from '../tasks/schema'
import { isPool } from './schema'

/** Pools that a cluster spreads over its nodes: the standard has no words for their banks, so a maker's own are needed. */
export const spreadPools: Offer<'spreadPools'> = ({ connection, map }): SpreadPools => {
  const own = ofMaker.requests(map.identity.maker)
  if (own === undefined || map.computers === undefined)
    throw new NotOffered(connection.endpoint.address, 'spreadPools', 'It is no row of nodes of a maker that is known.')
  return {
    async create(wanted, key) {
      const answer = await connection.change('POST', map.pools, {
        Name: wanted.name,
        Description: keyMark(key),
        Capacity: { Snapshot: { AllocatedPercent: wanted.snapshotReserveRatio * 100 } },
        ...own.spreadPool(wanted),
      })
      return madeBy(connection, answer)
    },
    banksOf: async locator => ofMaker.spread(await connection.read(locator, isPool))?.banks ?? [],
    async addDrives(locator, banks, rateRatio) {
      const body = own.addDrives(banks, rateRatio)
      return taskIn(await connection.change('POST', `${locator}/Actions/StoragePool.AddDrives`, body))
    },
    async removeDrives(locator, drives, rateRatio) {
      const body = { Drives: drives.map(reference), ...own.removeDrives(rateRatio) }
      return taskIn(await connection.change('POST', `${locator}/Actions/StoragePool.RemoveDrives`, body))
    },
    async moving(locator) {
      const task = await taskMaking(connection, map.tasks, locator)
      if (task === null || (await readTask(connection, task)).state !== 'running') return null
      return (await connection.readIfThere(task, isTask)) === undefined ? null : task
    },
  }
}

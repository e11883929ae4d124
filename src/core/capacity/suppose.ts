import { provisionableBytes, type Pool } from '../estate'
import type { Outlook } from './outlook'
import type { Relief } from './ways'

/** What might become of a pool, as somebody supposes it. */
export interface Supposed {
  /** Groups of drives more, each like those that it has. */
  readonly groups: number
  /** Of the growth that it has (percent): 100 goes on as it is. */
  readonly growthPercent: number
  /** Of what is written from now on, so much takes no space (percent), by reduction. */
  readonly sparedPercent: number
  /** Gone at once (TiB): what is deleted, or moved elsewhere. */
  readonly goneTebibytes: number
}

export const asItIs: Supposed = { groups: 0, growthPercent: 100, sparedPercent: 0, goneTebibytes: 0 }
const tebibyte = 2 ** 40

/** What volumes get of one group more; 0 of a pool that has no groups. */
export const groupBytes = (pool: Pool): number =>
  pool.groupSizes.length === 0 ? 0 : Number(provisionableBytes(pool)) / pool.groupSizes.length

/** What a supposition takes off a pool. Growth that becomes more takes off less than nothing; one that shrinks stays as it is. */
export function reliefOf(pool: Pool, { slopeBytesPerDay }: Outlook, supposed: Supposed): Relief {
  const growth = Math.max(0, slopeBytesPerDay)
  const then = growth * (supposed.growthPercent / 100) * (1 - supposed.sparedPercent / 100)
  return {
    bytes: supposed.goneTebibytes * tebibyte,
    bytesPerDay: growth - then,
    roomBytes: supposed.groups * groupBytes(pool),
  }
}

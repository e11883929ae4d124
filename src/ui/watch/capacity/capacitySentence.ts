import { provisionableBytes } from '@/core/estate'
import { countAtStart, formatBytes } from '@/core/units'
import type { PoolFilling } from '@/core/views'
import { dateWords } from './dueWords'

const dayMilliseconds = 86_400_000
const isPast = ({ outlook }: PoolFilling) => outlook !== undefined && outlook.usedBytes >= outlook.limitBytes

/** What matters of all pools: what is past its limit, what reaches it first, and what they hold together. */
export function capacitySentence(pools: readonly PoolFilling[]): { readonly first: string; readonly then: string } {
  const past = pools.filter(isPast)
  const next = pools.find(each => !isPast(each) && daysOf(each) !== null)
  const parts = [
    past.length === 0 ? '' : `${countAtStart(past.length, 'pool is', 'pools are')} past the limit`,
    next === undefined ? '' : `${next.pool.name} reaches its limit on ${dayWords(next)}`,
  ].filter(part => part !== '')
  const room = pools.reduce((sum, { pool }) => sum + provisionableBytes(pool), 0n)
  const written = pools.reduce((sum, { pool }) => sum + pool.writtenBytes, 0n)
  return {
    first: parts.length === 0 ? 'No pool reaches its limit within three years.' : `${parts.join(', and ')}.`,
    then: `${countAtStart(pools.length, 'pool has', 'pools have')} ${formatBytes(room)} for volumes, ${formatBytes(written)} written.`,
  }
}

const daysOf = ({ outlook }: PoolFilling) =>
  outlook === undefined || 'why' in outlook ? null : outlook.reachesLimit.p50

const dayWords = (filling: PoolFilling) =>
  dateWords((filling.outlook?.today ?? 0) + (daysOf(filling) ?? 0) * dayMilliseconds)

import { provisionableBytes, type Pool } from '@/core/estate'
import type { Effect, Sketch } from '@/core/plan'

/** Provisioned ÷ provisionable: above 1 a pool is over-committed. */
export const overcommitOf = (pool: Pool, provisionedBytes: bigint) => {
  const provisionable = provisionableBytes(pool)
  return provisionable === 0n ? 0 : Number(provisionedBytes) / Number(provisionable)
}

/** What is left in a pool for hosts to write. */
export const freeBytesOf = (pool: Pool) => {
  const free = provisionableBytes(pool) - pool.writtenBytes
  return free < 0n ? 0n : free
}

/** What more provisioning does to a pool. @param writtenAtOnce of it that is taken from the pool at once: all of a thick volume */
export function fillEffects(pool: Pool, addedBytes: bigint, writtenAtOnce: bigint): Effect[] {
  return [
    {
      figure: 'provisionedBytes',
      label: `Provisioned from ${pool.name}`,
      unit: 'bytes',
      before: `${pool.provisionedBytes}`,
      after: `${pool.provisionedBytes + addedBytes}`,
    },
    {
      figure: 'overcommit',
      label: 'Provisioned ÷ capacity',
      unit: 'ratio',
      before: overcommitOf(pool, pool.provisionedBytes),
      after: overcommitOf(pool, pool.provisionedBytes + addedBytes),
    },
    {
      figure: 'freeBytes',
      label: `Left to write in ${pool.name}`,
      unit: 'bytes',
      before: `${freeBytesOf(pool)}`,
      after: `${freeBytesOf(pool) - writtenAtOnce}`,
    },
  ]
}

export const fillSketch = (pool: Pool, addedBytes: bigint): Sketch => ({
  of: 'pool-fill',
  poolName: pool.name,
  usableBytes: `${provisionableBytes(pool)}`,
  writtenBytes: `${pool.writtenBytes}`,
  provisionedBefore: `${pool.provisionedBytes}`,
  provisionedAfter: `${pool.provisionedBytes + addedBytes}`,
})

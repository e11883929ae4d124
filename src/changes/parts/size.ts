import type { Pool } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { formatBytes, parseBytes } from '@/core/units'
import { freeBytesOf, overcommitOf } from './fill'
import { advise, must, rule, warn } from './checks'

/** Sizes go to systems as JSON numbers, which state whole bytes exactly up to here. */
const largestBytes = BigInt(Number.MAX_SAFE_INTEGER)

/** Reads a size field: the bytes, 0 where it cannot be read, and the checks that say why. */
export function readSize(size: string): { readonly bytes: bigint; readonly checks: readonly PlanCheck[] } {
  const parsed = parseBytes(size)
  if (!('bytes' in parsed)) return { bytes: 0n, checks: [must(parsed.rule, false, parsed.why, { field: 'size' })] }
  const { bytes } = parsed
  return {
    bytes,
    checks: [
      rule(
        'size-above-zero',
        bytes > 0n,
        `${formatBytes(bytes)} is ${formatBytes(bytes, 'decimal')}.`,
        'A volume of no size holds nothing.',
        { field: 'size', remedy: 'Give a size above zero.' },
      ),
      rule(
        'size-statable',
        bytes <= largestBytes,
        'The size can be stated to the system exactly.',
        "Above 2^53 − 1 bytes (8 PiB) a system's JSON answer no longer states the exact size.",
        { field: 'size', remedy: 'Make several volumes of at most 8 PiB.' },
      ),
    ],
  }
}

/** Whether what is added fits: a thick volume must, a thin one may over-commit, which is said. */
export function fitChecks(pool: Pool, addedBytes: bigint, isThin: boolean): PlanCheck[] {
  const free = freeBytesOf(pool)
  if (!isThin) {
    return [
      must(
        'fits',
        addedBytes <= free,
        `${pool.name} has ${formatBytes(free)} left; ${formatBytes(addedBytes)} would be taken at once.`,
        { field: 'size', remedy: `Ask for at most ${formatBytes(free)}, choose a thin volume, or another pool.` },
      ),
    ]
  }
  const after = overcommitOf(pool, pool.provisionedBytes + addedBytes)
  return [
    warn(
      'overcommit',
      after <= 1,
      `${pool.name} will have promised ${(after * 100).toFixed(0)}% of its capacity${after > 1 ? ': it is over-committed, and hosts can fill it before they reach their sizes' : ''}.`,
      { field: 'size', remedy: 'Watch its fill, or choose another pool.' },
    ),
    advise(
      'room-now',
      addedBytes <= free,
      `${formatBytes(free)} is left to write.`,
      `Only ${formatBytes(free)} is left to write: less than the size that is asked for.`,
      { field: 'poolId' },
    ),
  ]
}

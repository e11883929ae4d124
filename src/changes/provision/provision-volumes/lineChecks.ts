import { mostVolumes, type Estate, type Pool, type ReadLines } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { countAtStart, formatBytes } from '@/core/units'
import { advise, must, rule } from '../../parts/checks'
import { freeBytesOf, overcommitOf } from '../../parts/fill'

const shownTroubles = 5

export function namesCheck(estate: Estate, { volumes }: ReadLines): PlanCheck {
  const taken = new Set([...estate.volumes, ...estate.snapshots].map(({ name }) => name))
  const namesakes = volumes.filter(({ name }) => taken.has(name)).map(({ name }) => name)
  const more = namesakes.length > shownTroubles ? ` and ${namesakes.length - shownTroubles} more` : ''
  return rule(
    'names-free',
    namesakes.length === 0,
    'All names are free.',
    `${namesakes.slice(0, shownTroubles).join(', ')}${more} ${namesakes.length === 1 ? 'exists' : 'exist'} already, in use or in holding.`,
    { field: 'list' },
  )
}

export function linesCheck({ volumes, troubles }: ReadLines): PlanCheck {
  const [first] = troubles
  if (first !== undefined) {
    const shown = troubles.slice(0, shownTroubles).map(({ line, why }) => `Line ${line}: ${why}`)
    const more = troubles.length > shownTroubles ? ` And ${troubles.length - shownTroubles} more.` : ''
    return must('lines', false, `${shown.join(' ')}${more}`, { field: 'list' })
  }
  return rule(
    'lines',
    volumes.length > 0,
    `${countAtStart(volumes.length, 'volume is', 'volumes are')} asked for; ${mostVolumes.toLocaleString('en')} is the most.`,
    'Write a name and a size in each line.',
    { field: 'list' },
  )
}

export const stateCheck = (pool: Pool) =>
  rule(
    'pool-ready',
    pool.state === 'fine' || pool.state === 'degraded',
    `${pool.name} is ready.`,
    pool.state === 'starting' ? `${pool.name} is still being initialised.` : `${pool.name} has failed.`,
    { field: 'poolId' },
  )

export function roomCheck(pool: Pool, addedBytes: bigint, isThin: boolean): PlanCheck {
  const free = freeBytesOf(pool)
  if (!isThin)
    return rule(
      'fits',
      addedBytes <= free,
      `${pool.name} has ${formatBytes(free)} left.`,
      `${pool.name} has ${formatBytes(free)} left; ${formatBytes(addedBytes)} would be taken at once.`,
      {
        field: 'list',
      },
    )
  const after = overcommitOf(pool, pool.provisionedBytes + addedBytes)
  const percent = `${pool.name} will have promised ${(after * 100).toFixed(0)}% of its capacity`
  return advise(
    'overcommit',
    after <= 1,
    `${percent}.`,
    `${percent}: hosts can fill it before they reach their sizes.`,
    { field: 'list' },
  )
}

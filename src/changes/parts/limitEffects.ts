import type { Estate, Pool, VolumeLimits } from '@/core/estate'
import { driveStation, underLimits, type Limited } from '@/core/performance'
import type { Effect } from '@/core/plan'

/** The hour in which a pool was slowest, as it was and as it would have been under limits. */
export interface LimitedIn {
  readonly at: string
  readonly found: Limited
  readonly pool: Pool
}

/** @returns undefined where nothing has been measured of the pool yet */
export function limitedIn(
  estate: Estate,
  pool: Pool | undefined,
  volumeIds: readonly string[],
  limits: VolumeLimits,
): LimitedIn | undefined {
  const demand = estate.poolDemands.find(each => each.poolId === pool?.id)
  if (pool === undefined || demand === undefined || demand.demands.length === 0) return undefined
  return { pool, at: demand.at, found: underLimits(driveStation(pool), demand.demands, volumeIds, limits) }
}

export const hourOf = (at: string) => `${at.slice(0, 13).replace('T', ' ')}:00 UTC`

const milliseconds = (seconds: number) => `${(seconds * 1000).toFixed(2)} ms`

/** What limits do to those who are limited and to their neighbours. @param isNamed where there are several pools */
export const limitEffects = ({ found, pool }: LimitedIn, isNamed = false): readonly Effect[] => {
  const of = isNamed ? pool.name : 'its pool'
  const figure = (name: string) => (isNamed ? `${name}/${pool.id}` : name)
  return [
    {
      figure: figure('passed'),
      label: `${isNamed ? `Their requests to ${pool.name}` : 'Its requests'} a second, in the slowest hour`,
      unit: 'count',
      before: Math.round(found.askedPerSecond),
      after: Math.round(found.passedPerSecond),
    },
    {
      figure: figure('busy'),
      label: `The drives of ${of} are busy`,
      unit: 'ratio',
      before: found.utilizationBefore,
      after: found.utilizationAfter,
    },
    ...(found.responseAfter === null
      ? []
      : [
          {
            figure: figure('response'),
            label: `A request of a neighbour${isNamed ? ` in ${pool.name}` : ''} to the drives takes`,
            unit: 'words' as const,
            before: found.responseBefore === null ? 'longer and longer' : milliseconds(found.responseBefore),
            after: milliseconds(found.responseAfter),
          },
        ]),
  ]
}

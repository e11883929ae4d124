import type { EstateClock } from '@/core/clock'
import { row, run, type Scope } from '../database'

const leastSpanSeconds = 1.5
const wallToleranceSeconds = 5
const steadyRatio = 0.2
const newest = 0.2

/** Notes what a system's clock said. The rate is what it gained between two looks; one that keeps the wall's time counts as it. */
export async function noteClock(scope: Scope, systemId: string, wallAt: Date, systemAt: Date): Promise<void> {
  const known = await row<{
    readonly clock_wall_at: Date | null
    readonly clock_system_at: Date | null
    readonly clock_rate: number
  }>(scope, 'select clock_wall_at, clock_system_at, clock_rate from systems where id = $1', [systemId])
  const span = (wallAt.getTime() - (known?.clock_wall_at?.getTime() ?? wallAt.getTime())) / 1000
  if (known?.clock_wall_at != null && span < leastSpanSeconds) return
  const gained = known?.clock_system_at == null ? span : (systemAt.getTime() - known.clock_system_at.getTime()) / 1000
  const measured = span === 0 ? 1 : gained / span
  // One look errs by a hundredth or so, since an answer takes some milliseconds: looks that agree are averaged.
  const isSteady = known !== undefined && Math.abs(measured / known.clock_rate - 1) < steadyRatio
  const smoothed = isSteady ? known.clock_rate * (1 - newest) + measured * newest : measured
  const rate = Math.abs(smoothed - 1) < 0.05 ? 1 : smoothed
  await run(scope, 'update systems set clock_wall_at = $2, clock_system_at = $3, clock_rate = $4 where id = $1', [
    systemId,
    wallAt.toISOString(),
    systemAt.toISOString(),
    rate,
  ])
}

/** The estate's clock: the wall's, unless the systems keep another time among themselves. */
export async function estateClock(scope: Scope): Promise<EstateClock> {
  const told = await row<{ readonly clock_wall_at: Date; readonly clock_system_at: Date; readonly clock_rate: number }>(
    scope,
    'select clock_wall_at, clock_system_at, clock_rate from systems where clock_wall_at is not null order by clock_wall_at desc limit 1',
  )
  const wall = { wallAt: new Date().toISOString(), estateAt: new Date().toISOString(), rate: 1 }
  if (told === undefined) return wall
  const apart = Math.abs(told.clock_system_at.getTime() - told.clock_wall_at.getTime()) / 1000
  if (told.clock_rate === 1 && apart < wallToleranceSeconds) return wall
  return {
    wallAt: told.clock_wall_at.toISOString(),
    estateAt: told.clock_system_at.toISOString(),
    rate: told.clock_rate,
  }
}

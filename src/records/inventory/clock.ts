import { estateTime, type EstateClock } from '@/core/clock'
import { row, run, type Scope } from '../database'
import { setting } from '../settings'

/** The clock that systems have agreed on; undefined where none has been. */
export async function agreedBefore(scope: Scope): Promise<EstateClock | undefined> {
  const found = await row<{ readonly wall_at: Date; readonly estate_at: Date; readonly rate: number }>(
    scope,
    'select wall_at, estate_at, rate from estate_clock',
  )
  return found === undefined
    ? undefined
    : { wallAt: found.wall_at.toISOString(), estateAt: found.estate_at.toISOString(), rate: found.rate }
}

export const keepClock = (scope: Scope, { wallAt, estateAt, rate }: EstateClock) =>
  run(
    scope,
    `insert into estate_clock (wall_at, estate_at, rate) values ($1, $2, $3)
     on conflict (only_one) do update set wall_at = excluded.wall_at, estate_at = excluded.estate_at, rate = excluded.rate`,
    [wallAt, estateAt, rate],
  )

/** Whether the estate keeps its systems' time, as a simulated fleet does, instead of the wall's. */
export const followsSystems = async (scope: Scope) => (await setting<string>(scope, 'estate-clock')) === 'systems'

/** The estate's clock: the wall's, unless it is set to be what its systems agree on. */
export async function estateClock(scope: Scope): Promise<EstateClock> {
  const agreed = (await followsSystems(scope)) ? await agreedBefore(scope) : undefined
  const now = new Date().toISOString()
  return agreed ?? { wallAt: now, estateAt: now, rate: 1 }
}

/** The estate's time now. */
export const estateNow = async (scope: Scope): Promise<Date> => estateTime(await estateClock(scope), new Date())

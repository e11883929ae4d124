import { estateTime, type EstateClock } from '@/core/clock'
import { row, run, type Scope } from '../database'
import { setting } from '../settings'

/** The clock that systems have agreed on; undefined where none has been. */
export async function agreedBefore(scope: Scope): Promise<EstateClock | undefined> {
  const found = await row<AgreedRow>(scope, 'select wall_at, estate_at, rate from estate_clock')
  return found === undefined ? undefined : clockOf(found)
}

interface AgreedRow {
  readonly wall_at: Date
  readonly estate_at: Date
  readonly rate: number
}

const clockOf = ({ wall_at, estate_at, rate }: AgreedRow): EstateClock => ({
  wallAt: wall_at.toISOString(),
  estateAt: estate_at.toISOString(),
  rate,
})

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
  // What says whose clock counts and that clock in one statement: hardly anything is asked for as often.
  const agreed = await row<AgreedRow>(
    scope,
    `select wall_at, estate_at, rate from estate_clock where (select value from settings where key = 'estate-clock') = '"systems"'`,
  )
  const now = new Date().toISOString()
  return agreed === undefined ? { wallAt: now, estateAt: now, rate: 1 } : clockOf(agreed)
}

/** The estate's time now. */
export const estateNow = async (scope: Scope): Promise<Date> => estateTime(await estateClock(scope), new Date())

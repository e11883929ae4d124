import { DataTypes, literal, Op, type Sequelize } from 'sequelize'
import { inTransaction, row, run, type Scope } from '../database'
import { inside, kept, modelFor } from '../model'

/** Who tries to come in: the name, the address that it comes from, and the mark of a browser that has come in under that name before. */
export interface Attempt {
  readonly purpose: 'sign-in' | 'first-code'
  readonly name: string
  readonly address: string
  readonly device: string | undefined
}

interface KeptAttempt {
  readonly id: string
  readonly purpose: Attempt['purpose']
  readonly name: string
  readonly address: string
  readonly device: string | null
  readonly succeeded: boolean
  readonly at: Date
}
const model = modelFor<KeptAttempt>('sign_in_attempts', {
  id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
  purpose: kept.text,
  name: kept.text,
  address: kept.text,
  device: kept.maybeText,
  succeeded: { type: DataTypes.BOOLEAN },
  at: kept.instant,
})

const attemptsLock = 7_261_557
const windowMinutes = 15
const keptHours = 24
const longestWaitSeconds = 300

/** How many failures are free before each further one doubles the wait, from two seconds up to five minutes. */
const free = { pair: 3, name: 20, address: 20, device: 5 } as const

/** @returns seconds to wait; 0 where another try is free */
export function waitSeconds(failures: number, freeFailures: number, secondsSinceLast: number): number {
  if (failures < freeFailures) return 0
  const wait = Math.min(longestWaitSeconds, 2 ** Math.min(20, failures - freeFailures + 1))
  return Math.max(0, wait - secondsSinceLast)
}

interface Counted {
  readonly count: number
  readonly seconds_ago: number | null
}

/**
 * Counts a try before it is judged, so that parallel guesses cannot outrun the count. A browser that has come in under the name before
 * is counted by itself: guesses from elsewhere never shut it out.
 *
 * @returns the number of the attempt, to be passed to `succeeded`; or how long to wait (seconds, more than 0)
 */
export async function countAttempt(
  database: Sequelize,
  attempt: Attempt,
): Promise<{ readonly id: string } | { readonly waitSeconds: number }> {
  return inTransaction(database, async scope => {
    await run(scope, 'select pg_advisory_xact_lock($1)', [attemptsLock])
    const past = literal(`now() - interval '${keptHours} hours'`)
    await model(database).destroy({ where: { at: { [Op.lt]: past } }, ...inside(scope) })
    const wait = await waitOf(scope, attempt)
    if (wait > 0) return { waitSeconds: wait }
    const { purpose, name, address, device = null } = attempt
    const made = await model(database).create({ purpose, name, address, device, succeeded: false }, inside(scope))
    return { id: made.get({ plain: true }).id }
  })
}

/** Counts within windows that begin with the last success, each in one statement. */
async function waitOf(scope: Scope, { purpose, name, address, device }: Attempt): Promise<number> {
  const failures = async (where: string, ...bind: readonly string[]) => {
    const found = await row<Counted>(
      scope,
      `select count(*)::int as count, extract(epoch from now() - max(at))::float8 as seconds_ago from sign_in_attempts
       where purpose = $1 and not succeeded and at > now() - make_interval(mins => $2) and ${where}`,
      [purpose, windowMinutes, ...bind],
    )
    return [found?.count ?? 0, found?.seconds_ago ?? Infinity] as const
  }
  const wait = ([count, ago]: readonly [number, number], freeFailures: number) => waitSeconds(count, freeFailures, ago)
  const since = `at > coalesce((select max(at) from sign_in_attempts s where s.purpose = $1 and s.succeeded and s.name = $3 and`
  if (device !== undefined)
    return wait(
      await failures(`name = $3 and device = $4 and ${since} s.device = $4), '-infinity')`, name, device),
      free.device,
    )
  return Math.max(
    wait(
      await failures(
        `name = $3 and address = $4 and device is null and ${since} s.address = $4), '-infinity')`,
        name,
        address,
      ),
      free.pair,
    ),
    wait(await failures('name = $3 and device is null', name), free.name),
    wait(await failures('address = $3 and device is null', address), free.address),
  )
}

export async function succeeded(scope: Scope, id: string): Promise<void> {
  await model(scope.database).update({ succeeded: true }, { where: { id }, ...inside(scope) })
}

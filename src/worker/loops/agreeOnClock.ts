import { agreedClock, clocksApart, isSameClock, rateOf, type ClockReading } from '@/core/clock'
import { clockApartSeconds, clockFinding } from '@/core/findings'
import { agreedBefore, followsSystems, keepClock, keepFindings, systemsNamed } from '@/records/inventory'
import type { World } from '../World'

/** Systems are asked for their time this often where it is only compared with the wall's. */
const compareMilliseconds = 60_000
const lookMilliseconds = 5000

const latest = new WeakMap<World, Map<string, ClockReading>>()
const comparedAt = new WeakMap<World, number>()

/**
 * Compares the clocks of all systems that answer. Where the estate follows its systems, the time that most of them keep counts; else
 * the wall's does. A clock that is apart from it is told as a finding, and never counted by.
 */
export async function agreeOnClock(world: World): Promise<void> {
  const scope = { database: world.database }
  const isFollowing = await followsSystems(scope)
  if (!isFollowing && Date.now() - (comparedAt.get(world) ?? 0) < compareMilliseconds) return
  comparedAt.set(world, Date.now())
  const before = latest.get(world) ?? new Map<string, ClockReading>()
  const systems = await systemsNamed(scope)
  const readings = (await Promise.all(systems.map(({ id }) => readClock(world, id, before.get(id))))).flatMap(
    each => each ?? [],
  )
  latest.set(world, new Map(readings.map(each => [each.systemId, each])))
  const now = new Date()
  const wall = { wallAt: now.toISOString(), estateAt: now.toISOString(), rate: 1 }
  const previous = isFollowing ? await agreedBefore(scope) : wall
  const clock = isFollowing ? agreedClock(readings, previous, now) : wall
  if (isFollowing && readings.length > 0 && (previous === undefined || !isSameClock(previous, clock, now)))
    await keepClock(scope, clock)
  const outliers = clocksApart(readings, clock, now)
  for (const { systemId } of readings) {
    const apart = outliers.find(each => each.systemId === systemId)
    const limit = clockApartSeconds * Math.max(1, Math.abs(clock.rate))
    const named = { id: systemId, name: systems.find(({ id }) => id === systemId)?.name ?? '' }
    const isTold = apart !== undefined && Math.abs(apart.secondsAhead) > limit
    await keepFindings(scope, systemId, 'clock', isTold ? [clockFinding(named, apart.secondsAhead)] : [])
  }
}

async function readClock(
  world: World,
  systemId: string,
  before: ClockReading | undefined,
): Promise<ClockReading | undefined> {
  try {
    const asked = Date.now()
    const system = await world.system(systemId)
    const systemAt = await within(system.now(), lookMilliseconds)
    // The answer was written somewhere between asking and hearing: the middle errs least.
    const wallAt = new Date((asked + Date.now()) / 2)
    return { systemId, wallAt, systemAt, ...rateOf(before, wallAt, systemAt) }
  } catch {
    return undefined // the collector says why a system does not answer
  }
}

/** One slow system must not hold up what the others keep. */
function within<T>(work: Promise<T>, milliseconds: number): Promise<T> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('It took too long.')), milliseconds)
    work.then(resolve, reject).finally(() => clearTimeout(timer))
  })
}

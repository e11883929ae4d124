import { seededNumber, type Entry } from '../fleet'
import type { UsageCourse, UsageEntity, VolumeEntity } from './entities'
import { poolWrittenBytes } from './poolSpace'
import type { SimulatedArray } from './SimulatedArray'

const hour = 3_600_000
const day = 24 * hour
const keptHours = 8 * 24
const keptDays = 120
/** Of a day's growth, by weekday from Monday: what people make they make on weekdays. */
const weekly = [1.3, 1.2, 1.15, 1.2, 1.25, 0.55, 0.35] as const

/** 1970 began on a Thursday. */
const weekdayOf = (at: number) => (Math.floor(at / day) + 3) % 7

/** No two days are alike: from 0.4 to 1.6 of what a day of its kind brings, the same for the same day of the same course. */
const dayFactor = (seed: string, at: number) =>
  0.4 + seededNumber('day', `${seed}/${Math.floor(at / day)}`, 0, 1200) / 1000

/** What a course adds between two instants (bytes): its daily growth by weekday and luck, and the steps that lie between them. */
export function grownBetween(
  { bytesPerDay, isWeekly, seed, steps = [] }: UsageCourse,
  from: number,
  to: number,
): number {
  let grown = 0
  for (let at = from; at < to; ) {
    const end = Math.min(to, (Math.floor(at / day) + 1) * day)
    const share = (isWeekly ? (weekly[weekdayOf(at)] ?? 1) : 1) * (seed === undefined ? 1 : dayFactor(seed, at))
    grown += (bytesPerDay * share * (end - at)) / day
    at = end
  }
  return steps.reduce((sum, { at, bytes }) => (at > from && at <= to ? sum + bytes : sum), grown)
}

/** Lets workloads of the array's volumes write what their courses say, and notes every full hour what was written. */
export function growWorkloads(array: SimulatedArray): void {
  const now = array.clock.now()
  const last = array.store.one<{ at: number }>(`${array.model.name}/meters`, 'grown')?.at
  if (last === undefined) return array.store.commit([grownUntil(array, now)])
  const begin = Math.max(last, now - keptHours * hour)
  if (begin > last) grow(array, last, begin)
  let at = begin
  for (let next = (Math.floor(begin / hour) + 1) * hour; next <= now; next += hour) {
    grow(array, at, next)
    note(array, next)
    at = next
  }
  grow(array, at, now)
}

/** Written no oftener than a system would account it; what is not yet written is written with the next. */
const leastMilliseconds = 60_000

function grow(array: SimulatedArray, from: number, to: number): void {
  if (to - from < leastMilliseconds && to % hour !== 0) return
  const room = new Map<string, bigint>()
  const entries: Entry[] = []
  for (const volume of array.all('volumes')) {
    if (volume.course === undefined) continue
    const left =
      room.get(volume.poolId) ??
      array.poolDataBytes(array.one('pools', volume.poolId)) - poolWrittenBytes(array, volume.poolId)
    const wanted = BigInt(Math.round(grownBetween(volume.course, from, to)))
    // What is deleted needs no room; what is written stops where its volume or pool is full.
    const grown = wanted < 0n ? wanted : most(0n, least(wanted, left, roomIn(array, volume)))
    room.set(volume.poolId, left - grown)
    if (grown !== 0n)
      entries.push(array.entry('volumes', { ...volume, workloadBytes: `${BigInt(volume.workloadBytes) + grown}` }))
  }
  array.store.commit([...entries, grownUntil(array, to)])
}

const grownUntil = (array: SimulatedArray, at: number): Entry => ({
  collection: `${array.model.name}/meters`,
  id: 'grown',
  value: { at },
})

/** A thin volume takes what fits into it; a thick one has taken all of its size. */
const roomIn = (array: SimulatedArray, volume: VolumeEntity) =>
  volume.isThin ? BigInt(volume.sizeBytes) - array.writtenBytes(volume) : 0n

const least = (...all: readonly bigint[]) => all.reduce((low, each) => (each < low ? each : low))
const most = (a: bigint, b: bigint) => (a > b ? a : b)

/** Keeps what pools and volumes hold now, by the hour and by the day; the oldest hours and days make room. */
function note(array: SimulatedArray, at: number): void {
  const usage: UsageEntity = {
    id: `${at}`,
    pools: Object.fromEntries(array.all('pools').map(({ id }) => [id, `${poolWrittenBytes(array, id)}`])),
    volumes: Object.fromEntries(array.all('volumes').map(each => [each.id, `${array.writtenBytes(each)}`])),
  }
  array.store.commit([
    array.entry('usageByHour', usage),
    ...past(array, 'usageByHour', at - keptHours * hour),
    ...(at % day === 0 ? [array.entry('usageByDay', usage), ...past(array, 'usageByDay', at - keptDays * day)] : []),
  ])
}

const past = (array: SimulatedArray, kind: 'usageByHour' | 'usageByDay', before: number) =>
  array.all(kind).flatMap(({ id }) => (Number(id) < before ? [array.gone(kind, id)] : []))

/** What the seed's volumes held before the fleet began, back from what they hold now: history that leads up to the present without a step. */
export function seedUsage(array: SimulatedArray): void {
  const now = array.clock.now()
  const hours = Array.from({ length: keptHours }, (_, index) => Math.floor(now / hour - index) * hour)
  const days = Array.from({ length: keptDays }, (_, index) => Math.floor(now / day - index) * day)
  array.store.commit([
    ...hours.map(at => array.entry('usageByHour', usageThen(array, at, now))),
    ...days.map(at => array.entry('usageByDay', usageThen(array, at, now))),
    grownUntil(array, now),
  ])
}

function usageThen(array: SimulatedArray, at: number, now: number): UsageEntity {
  const written = array.all('volumes').map(volume => {
    const grown = volume.course === undefined ? 0 : Math.round(grownBetween(volume.course, at, now))
    const then = array.writtenBytes({ ...volume, workloadBytes: `${BigInt(volume.workloadBytes) - BigInt(grown)}` })
    return { volume, bytes: then < 0n ? 0n : then }
  })
  const inPool = (poolId: string) =>
    written.reduce((sum, { volume, bytes }) => (volume.poolId === poolId ? sum + bytes : sum), 0n)
  return {
    id: `${at}`,
    pools: Object.fromEntries(array.all('pools').map(({ id }) => [id, `${inPool(id)}`])),
    volumes: Object.fromEntries(written.map(({ volume, bytes }) => [volume.id, `${bytes}`])),
  }
}

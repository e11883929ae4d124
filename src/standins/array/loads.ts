import { stationLoad, writeCost, type WriteLayout } from '@/core/performance'
import { seededNumber } from '../fleet'
import type { CountersEntity, LoadCounters, LoadCourse, PoolEntity, VolumeEntity } from './entities'
import type { SimulatedArray } from './SimulatedArray'

const minute = 60_000
const hour = 60 * minute
const day = 24 * hour
/** Loads are taken for even so long. */
const stepMilliseconds = 10 * minute
const keptHours = 15 * 24
/** What a drive takes for a small request that it has to go and get (seconds). */
const serviceSeconds = { HDD: 0.0062, SSD: 0.000_18 } as const
const cacheReadSeconds = 0.000_25
const cacheWriteSeconds = 0.000_4
/** Of one request's bytes on their way to a host. */
const bytesPerSecond = 1.2e9
/** Hosts wait for their answers before they ask again: drives are never asked for more than this part of what they can. */
const mostBusy = 0.93
/** From here on writes have to wait until what was written before has reached the drives. */
const writesWaitFrom = 0.85
const wrapsAt = 2 ** 32

const courses: Readonly<Record<LoadCourse['shape'], (hourOfDay: number) => number>> = {
  // Comes in the morning, goes to lunch, is home by six.
  office: at =>
    at < 6 || at > 20
      ? 0.12
      : 0.35 + 0.9 * Math.exp(-(((at - 10.3) / 2.1) ** 2)) + 0.75 * Math.exp(-(((at - 15) / 2.2) ** 2)),
  steady: at => 0.9 + 0.1 * Math.sin((at / 24) * 2 * Math.PI),
  night: at => (at >= 1 && at < 3.5 ? 2.6 : 0.25),
}

const weekdayOf = (at: number) => (Math.floor(at / day) + 3) % 7
const isWeekend = (at: number) => weekdayOf(at) > 4

/** Requests a second that a workload makes at an instant. */
export function requestsAt(
  { requestsPerSecond, shape, peaks = [], seed }: LoadCourse & { readonly seed: string },
  at: number,
): number {
  const hourOfDay = (at % day) / hour
  const peak = peaks.find(
    each => each.weekday === weekdayOf(at) && hourOfDay >= each.fromHour && hourOfDay < each.toHour,
  )
  const rest = shape === 'office' && isWeekend(at) ? 0.25 : 1
  const luck = 0.85 + seededNumber('load', `${seed}/${Math.floor(at / stepMilliseconds)}`, 0, 300) / 1000
  return requestsPerSecond * courses[shape](hourOfDay) * rest * luck * (peak?.factor ?? 1)
}

interface Served {
  readonly requestsPerSecond: number
  readonly readSeconds: number
  readonly writeSeconds: number
}

/** What a ceiling lets through of requests of a size (a second). */
const ceilingOf = ({ ceiling }: VolumeEntity, bytesEach: number): number =>
  Math.min(ceiling?.requestsPerSecond ?? Infinity, (ceiling?.bytesPerSecond ?? Infinity) / Math.max(1, bytesEach))

/** How many requests a host has under way at once. */
const depth = 32

/**
 * Requests a second that a host gets of a volume when it reads as fast as it can, beside what its workload asks for: both share what a
 * ceiling lets through.
 */
export function fastest(array: SimulatedArray, volume: VolumeEntity, bytesEach: number): number {
  const pool = array.one('pools', volume.poolId)
  const volumes = array.all('volumes').filter(({ poolId, load }) => poolId === pool.id && load !== undefined)
  const served = servedAt(array, pool, volumes, array.clock.now())
  const own = served[volumes.findIndex(({ id }) => id === volume.id)]
  const transfer = bytesEach / bytesPerSecond
  const free = depth / ((own?.readSeconds ?? cacheReadSeconds) + transfer)
  if (array.faults.strikes(array.model.name, 'limit-ignored') !== undefined) return free
  const most = ceilingOf(volume, bytesEach)
  const beside = own?.requestsPerSecond ?? 0
  return free + beside <= most ? free : (most * free) / (free + beside)
}

/** How the volumes of a pool are served at an instant: what each asks makes all of them wait. */
export function servedAt(
  array: SimulatedArray,
  pool: PoolEntity,
  volumes: readonly VolumeEntity[],
  at: number,
): readonly Served[] {
  const drives = pool.groups.flat()
  const media = array.maybe('drives', drives[0] ?? '')?.media ?? 'HDD'
  const each = writeCost(layoutOf(pool))
  const wished = volumes.map(({ load, name }) => (load === undefined ? 0 : requestsAt({ ...load, seed: name }, at)))
  // What a ceiling does not let through waits at its own host, before it reaches any drive.
  const asked = volumes.map((each, index) => Math.min(wished[index] ?? 0, ceilingOf(each, each.load?.bytesEach ?? 0)))
  const atDrives = volumes.reduce((sum, { load }, index) => {
    if (load === undefined) return sum
    return sum + (asked[index] ?? 0) * (load.readShare * (1 - load.cacheHit) + (1 - load.readShare) * each)
  }, 0)
  // Stripes lie on all drives alike, and each drive has a queue of its own.
  const station = { model: 'mmc', serviceSeconds: serviceSeconds[media], servers: 1 } as const
  const wanted = (atDrives / drives.length) * station.serviceSeconds
  const throttle = wanted > mostBusy ? mostBusy / wanted : 1
  const found = stationLoad(station, (atDrives / drives.length) * throttle)
  const response = found.stable ? found.meanResponseSeconds : station.serviceSeconds
  const waiting = Math.max(0, (found.utilization - writesWaitFrom) / (1 - writesWaitFrom)) * response * each
  return volumes.map(({ load }, index) => {
    // As many requests as before are under way, and fewer are answered: each waits so much longer (Little's law).
    const held = (asked[index] ?? 0) === 0 ? 1 : (wished[index] ?? 0) / (asked[index] ?? 1)
    return {
      requestsPerSecond: (asked[index] ?? 0) * throttle,
      readSeconds: held * ((load?.cacheHit ?? 1) * cacheReadSeconds + (1 - (load?.cacheHit ?? 1)) * response),
      writeSeconds: held * (cacheWriteSeconds + waiting),
    }
  })
}

function layoutOf({ raidType, groups }: PoolEntity): WriteLayout {
  if (raidType === 'RAID1' || raidType === 'RAID1Triple')
    return { layout: 'mirror', copies: raidType === 'RAID1' ? 2 : 3 }
  // Half of what is written comes in full stripes; small writes cost most of what is left.
  return groups.length === 0
    ? { layout: 'mirror', copies: 2 }
    : { layout: 'paritySmallWrite', parityDrives: raidType === 'RAID5' ? 1 : raidType === 'RAID6' ? 2 : 3 }
}

const none: LoadCounters = [0, 0, 0, 0, 0, 0, 0]

/** Counts what workloads have asked from the last time on until now, and notes the counters at every full hour. */
export function countLoads(array: SimulatedArray): void {
  const now = array.clock.now()
  const last = array.maybe('loadCounters', 'now')
  if (last === undefined) return array.store.commit([array.entry('loadCounters', { id: 'now', at: now, volumes: {} })])
  if (now - last.at < minute / 2) return
  let counted = now - last.at > keptHours * hour ? { ...last, at: now - keptHours * hour } : last
  while (counted.at < now) {
    const next = Math.min(now, (Math.floor(counted.at / stepMilliseconds) + 1) * stepMilliseconds)
    counted = countedUntil(array, counted, next)
    if (next % hour === 0) array.store.commit([...hourOf(array, counted)])
  }
  array.store.commit([array.entry('loadCounters', counted)])
}

const hourOf = (array: SimulatedArray, counted: CountersEntity) => [
  array.entry('loadsByHour', { ...counted, id: `${counted.at}` }),
  ...array
    .all('loadsByHour')
    .flatMap(({ id }) => (Number(id) < counted.at - keptHours * hour ? [array.gone('loadsByHour', id)] : [])),
]

function countedUntil(array: SimulatedArray, counted: CountersEntity, until: number): CountersEntity {
  const seconds = (until - counted.at) / 1000
  const volumes: Record<string, LoadCounters> = { ...counted.volumes }
  const all = array.all('volumes').filter(({ load }) => load !== undefined)
  for (const pool of array.all('pools')) {
    const own = all.filter(({ poolId }) => poolId === pool.id)
    const served = servedAt(array, pool, own, (counted.at + until) / 2)
    own.forEach(({ id, load }, index) => {
      const { requestsPerSecond, readSeconds, writeSeconds } = served[index] ?? {
        requestsPerSecond: 0,
        readSeconds: 0,
        writeSeconds: 0,
      }
      const share = load?.readShare ?? 0
      const reads = requestsPerSecond * share * seconds
      const writes = requestsPerSecond * (1 - share) * seconds
      const kibibytes = (load?.bytesEach ?? 0) / 1024
      // What was kept by an earlier fleet has no hits yet.
      const [r, w, rk, wk, rs, ws, hits = 0] = volumes[id] ?? none
      volumes[id] = [
        r + reads,
        w + writes,
        rk + reads * kibibytes,
        wk + writes * kibibytes,
        rs + reads * readSeconds,
        ws + writes * writeSeconds,
        hits + reads * (load?.cacheHit ?? 0),
      ]
    })
  }
  return { ...counted, at: until, volumes }
}

/** What has been counted of a volume, as a counter of its width shows it. */
export const shownCounters = ([
  reads,
  writes,
  readKibibytes,
  writeKibibytes,
  readSeconds,
  writeSeconds,
  readHits = 0,
]: LoadCounters) => ({
  ReadIORequests: `${Math.floor(reads) % wrapsAt}`,
  WriteIORequests: `${Math.floor(writes) % wrapsAt}`,
  ReadIOKiBytes: `${Math.floor(readKibibytes) % wrapsAt}`,
  WriteIOKiBytes: `${Math.floor(writeKibibytes) % wrapsAt}`,
  ReadHitIORequests: `${Math.floor(readHits) % wrapsAt}`,
  ReadIORequestTime: `PT${readSeconds.toFixed(3)}S`,
  WriteIORequestTime: `PT${writeSeconds.toFixed(3)}S`,
})

/** Counters of the days before the fleet began, which lead up to the present. */
export function seedLoads(array: SimulatedArray): void {
  const now = array.clock.now()
  let counted: CountersEntity = { id: 'now', at: (Math.floor(now / hour) - keptHours) * hour, volumes: {} }
  while (counted.at < now) {
    const next = Math.min(now, counted.at + hour)
    counted = countedUntil(array, counted, next)
    if (next % hour === 0) array.store.commit([array.entry('loadsByHour', { ...counted, id: `${next}` })])
  }
  array.store.commit([array.entry('loadCounters', counted)])
}

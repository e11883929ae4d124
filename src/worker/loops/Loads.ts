import {
  isFromFuture,
  ratesBetween,
  ratesTogether,
  refuseSamples,
  type MetricName,
  type Rates,
  type RefusedWhy,
} from '@/core/metrics'
import { NotOffered, type MeasuredCounters } from '@/ports'
import { estateNow } from '@/records/inventory'
import {
  keptDays,
  metricSource,
  noteCaughtUp,
  noteCounted,
  noteRefused,
  poolPlaces,
  seriesAt,
  writeSamples,
  type SeriesSample,
} from '@/records/metrics'
import type { World } from '../World'

/** Counters are asked for so often (milliseconds of estate time). */
const everyMilliseconds = 60_000
/** What a system tells by itself goes on from what is known where no more lies between (milliseconds of estate time). */
const joinMilliseconds = 2 * everyMilliseconds
/** Counters that are kept until they are looked at: some minutes of a large system. */
const mostHeard = 500_000
/** Places that a system tells of and has not stated yet: new volumes, or what a system makes up. */
const mostUnstated = 10_000
/** A reading from before the first that is wanted is needed to begin with. */
const beginMilliseconds = 2 * 3_600_000
/** Systems note their hours: more at once is a time in which nobody looked (milliseconds of estate time). */
const muchMilliseconds = 3 * 3_600_000
/** A system that has no counters is asked again after so long (milliseconds of the wall's time). */
const againMilliseconds = 10 * 60_000
const dayMilliseconds = 86_400_000
const kept = ['latency', 'requests', 'writes', 'throughput', 'hits'] as const satisfies readonly MetricName[]

/** Keeps how fast one system's volumes answer and what is asked of them, from counters that it keeps; of its pools, their volumes together. */
export class Loads {
  /** The latest counters of each volume, by place. */
  readonly #latest = new Map<string, MeasuredCounters>()
  /** What the system has told by itself since it was looked at last. */
  #heard: MeasuredCounters[] = []
  /** What of the last answer could not be used: told again, it is counted once. */
  #refused: ReadonlySet<string> = new Set()
  #until: number | undefined
  #notBefore = 0
  /** By the estate's time. */
  #askedAt = 0

  constructor(
    private readonly world: World,
    private readonly systemId: string,
  ) {}

  /** Takes what the system tells by itself. More than can be kept until it is looked at is asked for instead. */
  hear(counters: readonly MeasuredCounters[]): void {
    if (this.#heard.length + counters.length > mostHeard) this.#heard = []
    // One by one into what is there: a system that tells of each by itself would have all of it copied each time.
    else for (const each of counters) this.#heard.push(each)
  }

  async keep(): Promise<void> {
    const { database, kept: known } = this.world
    if (!known.has(this.systemId) || Date.now() < this.#notBefore) return
    const scope = { database }
    const now = await estateNow(scope)
    this.#until ??= (await metricSource(scope, this.systemId)).countedAt?.getTime() ?? 0
    const { joining: heard, isGap } = this.#listened(now)
    if (heard === undefined && !isGap && now.getTime() - this.#askedAt < everyMilliseconds) return
    this.#askedAt = now.getTime()
    try {
      await this.#write(heard ?? (await this.#askSince(this.#until, now)), now)
    } catch (cause) {
      if (cause instanceof NotOffered) this.#notBefore = Date.now() + againMilliseconds
      else {
        // What was counted and not kept is asked for again: the system is the buffer while the records are away.
        this.#latest.clear()
        this.#until = undefined
        throw cause
      }
    }
  }

  /** What was heard, where it goes on from what is known; or that the system has to be asked for what lies between. */
  #listened(now: Date): { readonly joining?: readonly MeasuredCounters[]; readonly isGap: boolean } {
    const heard = this.#heard
    this.#heard = []
    const until = this.#until ?? 0
    const fresh = heard.filter(each => each.at > until && !isFromFuture(each, now.getTime()))
    const isJoining = this.#latest.size > 0 && fresh.some(each => each.at - until <= joinMilliseconds)
    return isJoining ? { joining: heard, isGap: false } : { isGap: fresh.length > 0 }
  }

  async #askSince(until: number, now: Date): Promise<readonly MeasuredCounters[]> {
    const oldest = now.getTime() - keptDays * dayMilliseconds
    const since = Math.max(oldest, until - (this.#latest.size === 0 ? beginMilliseconds : 0))
    const system = await this.world.system(this.systemId)
    return (await system.of('metrics')).countersSince(new Date(since), now)
  }

  async #write(told: readonly MeasuredCounters[], now: Date): Promise<void> {
    const { database } = this.world
    const scope = { database }
    // What seems to come from the future is told again once it is the present: until then nothing rests on it.
    const counted = told.filter(each => Number.isFinite(each.at) && !isFromFuture(each, now.getTime()))
    const refusedNow = this.#refusedOf(told, now)
    const rates = this.#ratesOf(counted, this.#until ?? 0)
    const places = await poolPlaces(scope, this.systemId)
    this.#forgetUnstated(places)
    const all = [...rates, ...ofPools(rates, places)]
    const seriesOf = await seriesAt(scope, this.systemId, [...new Set(all.map(({ locator }) => locator))], kept)
    const samples = all.flatMap(({ locator, rates: each }): SeriesSample[] =>
      valuesOf(each).flatMap(([metric, value]) => {
        const seriesId = seriesOf(locator, metric)
        return seriesId === undefined ? [] : [{ seriesId, at: each.at, value }]
      }),
    )
    const { kept: usable, refused } = refuseSamples(samples, now.getTime(), keptDays)
    await writeSamples(database, usable)
    await noteRefused(scope, this.systemId, summed(refusedNow, refused))
    // Counters of a system whose clock is ahead must not keep later ones out; one that notes its hours late is asked for them again.
    const last = counted.reduce(
      (latest, { at }) => (at <= now.getTime() ? Math.max(latest, at) : latest),
      this.#until ?? 0,
    )
    const isMuch = last - (this.#until ?? 0) > muchMilliseconds
    this.#until = last
    // A system that has counted nothing yet is known until no instant.
    if (last > 0) await noteCounted(scope, this.systemId, new Date(last))
    if (last > 0 && isMuch) await noteCaughtUp(scope, this.systemId)
  }

  /** What is told of places that a system has never stated is not kept for ever. */
  #forgetUnstated(stated: ReadonlyMap<string, string>): void {
    if (this.#latest.size <= stated.size + mostUnstated) return
    for (const locator of this.#latest.keys()) if (!stated.has(locator)) this.#latest.delete(locator)
  }

  /** How many of some counters cannot be used, by why: those that were not told of in the same way before. */
  #refusedOf(told: readonly MeasuredCounters[], now: Date): ReadonlyMap<RefusedWhy, number> {
    const marks = new Map(
      told.flatMap(each =>
        Number.isFinite(each.at) && !isFromFuture(each, now.getTime())
          ? []
          : [
              [
                `${each.locator} ${each.at}`,
                Number.isFinite(each.at) ? 'is from the future' : 'is not a number',
              ] as const,
            ],
      ),
    )
    const fresh = [...marks].filter(([mark]) => !this.#refused.has(mark)).map(([, why]) => new Map([[why, 1]]))
    this.#refused = new Set(marks.keys())
    return summed(...fresh)
  }

  /** What went on between the readings of each volume that end after an instant; what was written of earlier ones stands. */
  #ratesOf(counted: readonly MeasuredCounters[], until: number): { readonly locator: string; readonly rates: Rates }[] {
    return [...counted]
      .sort((a, b) => a.at - b.at)
      .flatMap(each => {
        const before = this.#latest.get(each.locator)
        if (before !== undefined && each.at <= before.at) return []
        this.#latest.set(each.locator, each)
        const rates = before === undefined ? undefined : ratesBetween(before, each)
        return rates === undefined || each.at <= until ? [] : [{ locator: each.locator, rates }]
      })
  }
}

const summed = (...all: readonly ReadonlyMap<RefusedWhy, number>[]): ReadonlyMap<RefusedWhy, number> => {
  const sums = new Map<RefusedWhy, number>()
  for (const each of all) for (const [why, count] of each) sums.set(why, (sums.get(why) ?? 0) + count)
  return sums
}

/** What the volumes of each pool did together, at each instant of which there are rates. */
function ofPools(
  rates: readonly { readonly locator: string; readonly rates: Rates }[],
  places: ReadonlyMap<string, string>,
) {
  const groups = new Map<string, { readonly locator: string; readonly all: Rates[] }>()
  for (const { locator: volume, rates: each } of rates) {
    const locator = places.get(volume)
    if (locator === undefined) continue
    const group = groups.get(`${each.at} ${locator}`) ?? { locator, all: [] }
    group.all.push(each)
    groups.set(`${each.at} ${locator}`, group)
  }
  return [...groups.values()].map(({ locator, all }) => ({ locator, rates: ratesTogether(all[0]?.at ?? 0, all) }))
}

/** As decimals that pack well: a microsecond, a hundredth of a request, a byte, a thousandth of all reads. */
const valuesOf = ({
  latencySeconds,
  operations,
  writes,
  bytesPerSecond,
  hitRatio,
}: Rates): (readonly [(typeof kept)[number], number])[] => [
  ...(latencySeconds === undefined ? [] : [['latency', Math.round(latencySeconds * 1e6) / 1e6] as const]),
  ['requests', Math.round(operations * 100) / 100],
  ['writes', Math.round(writes * 100) / 100],
  ['throughput', Math.round(bytesPerSecond)],
  ...(hitRatio === undefined ? [] : [['hits', Math.round(hitRatio * 1000) / 1000] as const]),
]

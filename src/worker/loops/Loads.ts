import { ratesBetween, ratesTogether, refuseSamples, type MetricName, type Rates } from '@/core/metrics'
import { NotOffered, type MeasuredCounters } from '@/ports'
import { estateNow } from '@/records/inventory'
import {
  keptDays,
  metricSource,
  noteCounted,
  poolPlaces,
  seriesAt,
  writeSamples,
  type SeriesSample,
} from '@/records/metrics'
import type { World } from '../World'

/** Counters are asked for so often (milliseconds of estate time). */
const everyMilliseconds = 60_000
/** A reading from before the first that is wanted is needed to begin with. */
const beginMilliseconds = 2 * 3_600_000
/** A system that has no counters is asked again after so long (milliseconds of the wall's time). */
const againMilliseconds = 10 * 60_000
const dayMilliseconds = 86_400_000
const kept = ['latency', 'requests', 'writes', 'throughput'] as const satisfies readonly MetricName[]

/** Keeps how fast one system's volumes answer and what is asked of them, from counters that it keeps; of its pools, their volumes together. */
export class Loads {
  /** The latest counters of each volume, by place. */
  readonly #latest = new Map<string, MeasuredCounters>()
  #until: number | undefined
  #notBefore = 0
  /** By the estate's time. */
  #askedAt = 0

  constructor(
    private readonly world: World,
    private readonly systemId: string,
  ) {}

  async keep(): Promise<void> {
    const { database, kept: known } = this.world
    if (!known.has(this.systemId) || Date.now() < this.#notBefore) return
    const scope = { database }
    const now = await estateNow(scope)
    this.#until ??= (await metricSource(scope, this.systemId)).countedAt?.getTime() ?? 0
    if (now.getTime() - this.#askedAt < everyMilliseconds) return
    this.#askedAt = now.getTime()
    const oldest = now.getTime() - keptDays * dayMilliseconds
    const since = Math.max(oldest, this.#until - (this.#latest.size === 0 ? beginMilliseconds : 0))
    try {
      const system = await this.world.system(this.systemId)
      await this.#write(await (await system.of('metrics')).countersSince(new Date(since), now), now)
    } catch (cause) {
      if (!(cause instanceof NotOffered)) throw cause
      this.#notBefore = Date.now() + againMilliseconds
    }
  }

  async #write(counted: readonly MeasuredCounters[], now: Date): Promise<void> {
    const { database } = this.world
    const scope = { database }
    const rates = this.#ratesOf(counted, this.#until ?? 0)
    const places = await poolPlaces(scope, this.systemId)
    const all = [...rates, ...ofPools(rates, places)]
    const seriesOf = await seriesAt(scope, this.systemId, [...new Set(all.map(({ locator }) => locator))], kept)
    const samples = all.flatMap(({ locator, rates: each }): SeriesSample[] =>
      valuesOf(each).flatMap(([metric, value]) => {
        const seriesId = seriesOf(locator, metric)
        return seriesId === undefined ? [] : [{ seriesId, at: each.at, value }]
      }),
    )
    await writeSamples(database, refuseSamples(samples, now.getTime(), keptDays).kept)
    // Counters of a system whose clock is ahead must not keep later ones out; one that notes its hours late is asked for them again.
    const last = counted.reduce(
      (latest, { at }) => (at <= now.getTime() ? Math.max(latest, at) : latest),
      this.#until ?? 0,
    )
    this.#until = last
    // A system that has counted nothing yet is known until no instant.
    if (last > 0) await noteCounted(scope, this.systemId, new Date(last))
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

/** As decimals that pack well: a microsecond, a hundredth of a request, a byte. */
const valuesOf = ({
  latencySeconds,
  operations,
  writes,
  bytesPerSecond,
}: Rates): (readonly [(typeof kept)[number], number])[] => [
  ...(latencySeconds === undefined ? [] : [['latency', Math.round(latencySeconds * 1e6) / 1e6] as const]),
  ['requests', Math.round(operations * 100) / 100],
  ['writes', Math.round(writes * 100) / 100],
  ['throughput', Math.round(bytesPerSecond)],
]

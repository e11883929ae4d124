import { refuseSamples, type MetricName, type RefusedWhy } from '@/core/metrics'
import { NotOffered } from '@/ports'
import { estateNow } from '@/records/inventory'
import {
  keptDays,
  metricSource,
  noteCaughtUp,
  noteFilled,
  noteGap,
  sampleLevels,
  seriesAt,
  writeSamples,
  type SeriesSample,
} from '@/records/metrics'
import type { World } from '../World'

/** Nothing kept for so long is a gap that the system may fill (milliseconds of estate time). */
const gapMilliseconds = 3_600_000
/** Fields are looked at so often at most (milliseconds of estate time). */
const lookMilliseconds = 60_000
/** A history that could not be read, or that ended early, is asked for again after so long, twice as long each time (milliseconds of the wall's time). */
const againMilliseconds = 5000
const mostDoublings = 7
/** A system notes its hours when it comes to it: one whose history still ends early after so many times has no more. */
const mostTries = 4
const dayMilliseconds = 86_400_000
/** How far what is told by the day reaches says nothing of the hours: a system may state the day's before it has noted them. */
const toldByDay: ReadonlySet<MetricName> = new Set(['errors'])

type Refused = Map<RefusedWhy | 'is of nothing that is known', number>

/** Keeps what one system measures: what its fields have now, and what it has kept itself of the time in which nobody looked. */
export class Metering {
  #triedAt = 0
  #tries = 0
  #sampledAt = 0

  constructor(
    private readonly world: World,
    private readonly systemId: string,
  ) {}

  async keep(): Promise<void> {
    const { database } = this.world
    // What the system has is known as of when it was read last; of one that is silent nothing new is known, and its gap is filled later.
    const readAt = this.world.readAt.get(this.systemId)
    if (readAt === undefined) return
    const scope = { database }
    const now = await estateNow(scope)
    const isLooked = readAt.getTime() - this.#sampledAt < lookMilliseconds
    if (isLooked && this.#tries === 0) return
    const { sampledAt, gapSince } = await metricSource(scope, this.systemId)
    const oldest = new Date(now.getTime() - keptDays * dayMilliseconds)
    const isGap = now.getTime() - (sampledAt?.getTime() ?? 0) > gapMilliseconds
    if (isGap) await noteGap(scope, this.systemId, gapSince ?? sampledAt ?? oldest)
    if (isGap || gapSince !== undefined) await this.#fill(gapSince ?? sampledAt ?? oldest, now)
    if (isLooked) return
    await sampleLevels(database, this.systemId, readAt)
    this.#sampledAt = readAt.getTime()
  }

  /** What the system has kept since an instant. One that cannot say now holds up nothing: it is asked again. */
  async #fill(since: Date, now: Date): Promise<void> {
    const pause = (againMilliseconds * 2 ** Math.min(this.#tries, mostDoublings)) / this.world.pace
    if (this.#tries > 0 && Date.now() - this.#triedAt < pause) return
    this.#triedAt = Date.now()
    this.#tries += 1
    const scope = { database: this.world.database }
    const refused: Refused = new Map()
    try {
      const last = await this.#readSince(since, now, refused)
      const isEarly = now.getTime() - last > gapMilliseconds * 1.5
      const isOver = !isEarly || this.#tries >= mostTries
      await noteFilled(scope, this.systemId, null, refused, isOver ? null : new Date(last))
      if (isOver) {
        this.#tries = 0
        await noteCaughtUp(scope, this.systemId)
      }
    } catch (cause) {
      if (!(cause instanceof NotOffered)) throw cause
      await noteFilled(scope, this.systemId, cause.why, refused)
      this.#tries = 0
    }
  }

  /** @returns the instant of the last hour that the system has kept; that from which it was asked for where there is none */
  async #readSince(since: Date, now: Date, refused: Refused): Promise<number> {
    const { database } = this.world
    const system = await this.world.system(this.systemId)
    const measured = await (await system.of('metrics')).levelsSince(since, now)
    const checked = refuseSamples(measured, now.getTime(), keptDays)
    for (const [why, count] of checked.refused) refused.set(why, count)
    const known: (SeriesSample & { readonly metric: MetricName })[] = []
    for (const metric of new Set(checked.kept.map(each => each.metric))) {
      const own = checked.kept.filter(each => each.metric === metric)
      const places = [...new Set(own.map(({ locator }) => locator))]
      const seriesOf = await seriesAt({ database }, this.systemId, places, [metric])
      for (const { locator, at, value } of own) {
        const seriesId = seriesOf(locator, metric)
        if (seriesId !== undefined) known.push({ seriesId, at, value, metric })
      }
    }
    const unknown = checked.kept.length - known.length
    if (unknown > 0) refused.set('is of nothing that is known', unknown)
    await writeSamples(database, known)
    return known
      .filter(({ metric }) => !toldByDay.has(metric))
      .reduce((last, { at }) => Math.max(last, at), since.getTime())
  }
}

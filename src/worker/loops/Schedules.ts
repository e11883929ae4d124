import { latestDueOf, momentsDue, scheduleOf, type SnapshotSchedule } from '@/core/classes'
import type { ServiceClass, Snapshot, Volume } from '@/core/estate'
import { smeared } from '@/core/schedule'
import { judged, mayGo, momentWord, snapshotName } from '@/core/snapshots'
import { RequestRefused } from '@/ports'
import { inTransaction } from '@/records'
import { audit } from '@/records/audit'
import {
  estateNow,
  gone,
  idAt,
  lastMoment,
  noteMoment,
  noteSnapshots,
  ownSchedules,
  type Scheduled,
  snapshotsPast,
  volumesDue,
  volumesUnder,
} from '@/records/inventory'
import { objects } from '@/records/objects'
import { collectSystem } from '../collect/collectSystem'
import type { World } from '../World'

/** Starts are spread over so long after they are due, so that a system does not do all at once. */
const toleranceSeconds = 300
/** What is asked of a system in one look; the rest comes with the next. */
const mostAtOnce = 16
const mostLookedAt = 2000
const mostJudged = 64
/** So long nobody looks again whether a moment has become due of further volumes (milliseconds of the wall's time). */
const takenMilliseconds = 20_000

/** A schedule with those who go by it. */
interface Source {
  readonly key: string
  readonly of: Scheduled
  readonly schedule: SnapshotSchedule
  /** Another one once what it says has changed. */
  readonly revision: number
  /** Why snapshots are taken by it. */
  readonly reason: string
}

/**
 * Keeps the schedules of one system: takes the snapshots of its volumes that have come due by their classes or by schedules of their
 * own, and removes those that nothing needs any more or whose time in holding is over. A moment that was missed is not made up for: the
 * latest that is due is taken. What a process has begun when it dies bears the name of its moment, by which the next one knows it.
 */
export class Schedules {
  /** Moments of which nothing was left to take, by schedule, and when that was seen: volumes may come under it after that. */
  readonly #taken = new Map<string, { readonly moment: string; readonly seenAt: number }>()
  /** Volumes whose snapshots are to be judged by their retention. */
  readonly #judge = new Set<string>()
  /** Schedules as they were when their volumes were judged last. */
  readonly #judged = new Map<string, number>()
  /** The latest moment of each class of which it is noted how it was kept. */
  readonly #noted = new Map<string, Date>()

  constructor(
    private readonly world: World,
    private readonly systemId: string,
  ) {}

  async keep(): Promise<void> {
    const { world, systemId } = this
    const scope = { database: world.database }
    const now = await estateNow(scope)
    await remove(world, systemId, await snapshotsPast(scope, systemId, now, mostAtOnce), 'Its time in holding is over.')
    const classes = await objects(scope, 'serviceClasses')
    const sources = [...classes.map(ofClass), ...(await ownSchedules(scope, systemId)).map(ofItsOwn)]
    for (const source of sources) {
      await this.#takeDue(source, now)
      // All are judged once when a worker begins, and when what a schedule keeps has changed; else those of which one was taken.
      if (this.#judged.get(source.key) === source.revision) continue
      for (const { id } of await volumesUnder(scope, systemId, source.of)) this.#judge.add(id)
      this.#judged.set(source.key, source.revision)
    }
    this.#forget(new Set(sources.map(({ key }) => key)))
    if (this.#judge.size > 0) await this.#prune(classes)
  }

  /** A schedule that nothing goes by any more is new again when something does. */
  #forget(known: ReadonlySet<string>): void {
    for (const map of [this.#taken, this.#judged, this.#noted])
      for (const key of map.keys()) if (!known.has(key)) map.delete(key)
  }

  async #takeDue({ key, of, schedule, revision, reason }: Source, now: Date): Promise<void> {
    const { world, systemId } = this
    const due = latestDueOf(schedule, now)
    const moment = `${due?.toISOString()} ${revision}`
    const taken = this.#taken.get(key)
    const isTaken = taken?.moment === moment && Date.now() - taken.seenAt < takenMilliseconds
    if (due === undefined || isTaken) return
    const scope = { database: world.database }
    const waiting = await volumesDue(scope, systemId, of, due, mostLookedAt)
    // What is of one group begins together.
    const isBegun = ({ id, consistencyGroupId }: Volume) =>
      smeared(due, consistencyGroupId ?? id, toleranceSeconds) <= now
    const begin = waiting.filter(isBegun).slice(0, mostAtOnce)
    if (begin.length > 0) await take(world, systemId, begin, due, reason)
    for (const { id } of begin) this.#judge.add(id)
    const isOver = now.getTime() > due.getTime() + toleranceSeconds * 1000
    if (isOver && 'classId' in of) await this.#note(of.classId, schedule, due, waiting.length === 0)
    if (waiting.length === 0 && isOver) this.#taken.set(key, { moment, seenAt: Date.now() })
  }

  /** Notes how moments that are over were kept: those that passed while nobody looked too, the latest once nothing of it waits. */
  async #note(classId: string, schedule: SnapshotSchedule, due: Date, isWhole: boolean): Promise<void> {
    const { world, systemId } = this
    const scope = { database: world.database }
    const before = this.#noted.get(classId) ?? (await lastMoment(scope, systemId, classId))
    if (before !== undefined && before >= due) return void this.#noted.set(classId, before)
    const passed = before === undefined ? [] : momentsDue(schedule, before, new Date(due.getTime() - 1))
    for (const moment of isWhole ? [...passed, due] : passed) {
      await noteMoment(scope, systemId, classId, moment)
      this.#noted.set(classId, moment)
    }
  }

  async #prune(classes: readonly ServiceClass[]): Promise<void> {
    const { world, systemId } = this
    const scope = { database: world.database }
    const ids = [...this.#judge].slice(0, mostJudged)
    const volumes = await objects(scope, 'volumes', { where: { id: ids } })
    const snapshots = await objects(scope, 'snapshots', { where: { volumeId: ids } })
    const clones = await objects(scope, 'volumes', { where: { cloneOfId: snapshots.map(({ id }) => id) } })
    const mappings = await objects(scope, 'mappings', { where: { snapshotId: snapshots.map(({ id }) => id) } })
    for (const id of ids) {
      const own = snapshots.filter(({ volumeId }) => volumeId === id)
      const volume = volumes.find(each => each.id === id)
      const serviceClass = classes.find(each => each.id === volume?.classId)
      const schedule = scheduleOf(volume, serviceClass)
      const unneeded = mayGo(judged(own, { schedule, volumes: clones, mappings }), schedule)
      const of = volume?.ownSchedule == null ? (serviceClass?.name ?? 'its class') : 'its own schedule'
      const why = `No rule of ${of} needs it any more.`
      await remove(world, systemId, unneeded.slice(0, mostAtOnce), why)
      // What is pending counts only once it is consistent: until then the one before it stays.
      if (unneeded.length <= mostAtOnce && own.every(({ state }) => state !== 'pending')) this.#judge.delete(id)
    }
  }
}

const ofClass = (serviceClass: ServiceClass): Source => ({
  key: serviceClass.id,
  of: { classId: serviceClass.id },
  schedule: serviceClass,
  revision: serviceClass.revision,
  reason: serviceClass.name,
})
const ofItsOwn = (own: NonNullable<Volume['ownSchedule']>): Source => ({
  ...{ key: JSON.stringify(own), of: { own }, schedule: own, revision: 0, reason: 'its own schedule' },
})

async function take(world: World, systemId: string, volumes: readonly Volume[], due: Date, reason: string) {
  const scope = { database: world.database }
  const pools = new Map((await objects(scope, 'pools', { where: { systemId } })).map(each => [each.id, each.locator]))
  const taken = await takeGroups(world, systemId, volumes, due)
  const system = await (await world.system(systemId)).of('snapshots')
  for (const volume of volumes) {
    if (volume.consistencyGroupId !== null) continue
    const name = snapshotName(volume.name, due)
    const made = await system
      .take(volume.locator, volume.naa, pools.get(volume.poolId) ?? '', name)
      .catch(async (cause: unknown) => {
        // A process that died may have taken it: then it is there under its name.
        const there = cause instanceof RequestRefused ? await system.named(volume.locator, name) : undefined
        if (there === undefined) throw cause
        return there
      })
    taken.push(made.locator)
  }
  await collectSystem(world, systemId)
  for (const locator of taken) {
    const id = await idAt(scope, systemId, locator)
    if (id !== undefined) await noteSnapshots(scope, [id], { dueAt: due, reason })
  }
}

/**
 * Snapshots of one instant of the groups in which volumes are: of all of a group, also of those under another class, since their system
 * takes them together. @returns where they stand
 */
async function takeGroups(world: World, systemId: string, volumes: readonly Volume[], due: Date): Promise<string[]> {
  const ids = [...new Set(volumes.flatMap(each => each.consistencyGroupId ?? []))]
  if (ids.length === 0) return []
  const system = await (await world.system(systemId)).of('consistencyGroups')
  const name = momentWord(due)
  const taken: string[] = []
  for (const { locator, name: groupName } of await objects({ database: world.database }, 'consistencyGroups', {
    where: { id: ids },
  })) {
    // A process that died may have taken them: then they are there under their name.
    if ((await system.taken(locator, name)).length === 0) await system.take(locator, groupName, name)
    taken.push(...(await system.taken(locator, name)).map(each => each.locator))
  }
  return taken
}

async function remove(world: World, systemId: string, unneeded: readonly Snapshot[], why: string): Promise<void> {
  if (unneeded.length === 0) return
  const scope = { database: world.database }
  const system = await (await world.system(systemId)).of('snapshots')
  for (const { id, name, naa, locator } of unneeded) {
    await system.remove(locator, naa)
    await inTransaction(world.database, inside =>
      audit(inside, { who: 'Wendrel', address: null, action: 'snapshot.removed', subject: id, detail: { name, why } }),
    )
  }
  await collectSystem(world, systemId)
  await gone(
    scope,
    systemId,
    unneeded.map(({ locator }) => locator),
  )
}

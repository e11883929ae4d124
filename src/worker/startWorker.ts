import { setMaxListeners } from 'node:events'
import { run, Logger, type Runner } from 'graphile-worker'
import { setTimeout as pause } from 'node:timers/promises'
import { v7 as uuid } from 'uuid'
import { openDatabase } from '@/records'
import { carryOutTask } from '@/records/changes'
import { noteWorker, systemIds, withdrawWorker } from '@/records/inventory'
import { runChange } from './carryOut/runChange'
import { Leases } from './Leases'
import { agreeOnClock } from './loops/agreeOnClock'
import { every } from './loops/every'
import { keepMetrics } from './loops/keepMetrics'
import { lookAfterSystem } from './loops/lookAfterSystem'
import { deleteHeld, takeUpChanges } from './loops/watchOverChanges'
import { readDirectories } from './loops/readDirectories'
import { tell } from './loops/tell'
import { World } from './World'

const changesAtOnce = 8
const longestPauseMilliseconds = 15_000
const queueMilliseconds = 10_000

/**
 * Starts a worker: it collects, carries out changes and watches over them until stopped. Any number may run.
 * @param pace how many times as often it does what it does again and again; what it measures, by a pace of its own
 */
export async function startWorker(
  url: string,
  key: Buffer,
  log: Log,
  { pace = 1, meterPace = pace }: { readonly pace?: number; readonly meterPace?: number } = {},
): Promise<{ readonly stop: () => Promise<void> }> {
  const ending = new AbortController()
  const stop = ending.signal
  // Every wait and every request listens to it for as long as it lasts: many of them are no leak.
  setMaxListeners(0, stop)
  const database = openDatabase(url, 12)
  const world = new World(database, url, key, stop, pace, meterPace)
  const leases = new Leases(url)
  const id = uuid()
  const followed = new Map<string, Promise<void>>()
  const loops = [
    queueLoop(world, log),
    ...worksOf({ world, leases, id, followed }, log).map(([milliseconds, what, work]) =>
      every(milliseconds / pace, stop, work, told(log, what)),
    ),
  ]
  return {
    async stop() {
      ending.abort()
      await Promise.allSettled([...loops, ...followed.values()])
      await withdrawWorker({ database }, id).catch(() => undefined)
      await Promise.allSettled([world.leave(), leases.close()])
      await database.close()
    },
  }
}

type Log = (line: string) => void
const told = (log: Log, what: string) => (cause: unknown) =>
  log(`${what}: ${cause instanceof Error ? cause.message : String(cause)}`)

interface Working {
  readonly world: World
  readonly leases: Leases
  /** The worker's own id. */
  readonly id: string
  readonly followed: Map<string, Promise<void>>
}

/** What a worker does again and again: how often (milliseconds), what it is called where it fails, and the work. */
function worksOf({ world, leases, id, followed }: Working, log: Log) {
  const by = (kind: OneWorkers, work: () => Promise<unknown>) => byOneWorker(leases, kind, work)
  const reading = 'reading directories'
  return [
    [1000, 'looking for systems', () => leaseSystems(world, leases, followed, log)],
    [2000, 'agreeing on the clock', by('clock', () => agreeOnClock(world))],
    [1000, 'taking up changes', () => takeUpChanges(world)],
    [3000, 'deleting what was held', () => deleteHeld(world, told(log, 'deleting what was held'))],
    [5000, 'keeping what is measured', by('metrics', () => keepMetrics(world))],
    [5000, 'telling', by('telling', () => tell(world))],
    [10_000, reading, by('directories', () => readDirectories(world, told(log, 'reading a directory')))],
    [10_000, 'saying that a worker runs', () => noteWorker({ database: world.database }, id)],
  ] as const
}

/** Takes each system that no other worker looks after. @param followed those that this one does, each until it ends */
async function leaseSystems(
  world: World,
  leases: Leases,
  followed: Map<string, Promise<void>>,
  log: (line: string) => void,
): Promise<void> {
  for (const systemId of await systemIds({ database: world.database })) {
    if (followed.has(systemId)) continue
    const lease = await leases.take({ kind: 'system', id: systemId })
    if (lease === undefined) continue
    const looking = lookAfterSystem(world, systemId, lease, log).finally(async () => {
      followed.delete(systemId)
      await leases.giveBack({ kind: 'system', id: systemId })
    })
    followed.set(systemId, looking)
  }
}

/** What is done by one worker only. */
type OneWorkers = 'clock' | 'metrics' | 'telling' | 'directories'

/** Work that is done as long as no other worker does it. */
function byOneWorker(leases: Leases, kind: OneWorkers, work: () => Promise<unknown>): () => Promise<void> {
  let lease: AbortSignal | undefined
  return async () => {
    if (lease === undefined || lease.aborted) lease = await leases.take({ kind })
    if (lease !== undefined) await work()
  }
}

/** The queue gives up when it has lost its database for some time: it is begun anew, for as long as this process lives. */
async function queueLoop(world: World, log: (line: string) => void): Promise<void> {
  let failures = 0
  while (!world.stop.aborted) {
    let runner: Runner | undefined
    try {
      runner = await run({
        connectionString: world.url,
        concurrency: changesAtOnce,
        // What is queued is told of at once; only what is to be tried again later is looked for.
        pollInterval: queueMilliseconds,
        noHandleSignals: true,
        logger: new Logger(() => (level, message) => {
          if (level === 'error') log(`queue: ${message}`)
        }),
        taskList: { [carryOutTask]: payload => runChange(world, (payload as { changeId: string }).changeId) },
      })
      failures = 0
      const begun = runner
      const end = () => void begun.stop().catch(() => undefined)
      // Stopped while it was beginning: nobody will tell it again.
      if (world.stop.aborted) end()
      world.stop.addEventListener('abort', end, { once: true })
      await runner.promise.finally(() => world.stop.removeEventListener('abort', end))
    } catch (cause) {
      failures += 1
      log(`queue: ${cause instanceof Error ? cause.message : String(cause)}; it is begun anew`)
    }
    if (world.stop.aborted) return
    await pause(Math.min(longestPauseMilliseconds, 500 * 2 ** failures), undefined, { signal: world.stop }).catch(
      () => undefined,
    )
  }
}

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

/** Starts a worker: it collects, carries out changes and watches over them until stopped. Any number may run. */
export async function startWorker(
  url: string,
  key: Buffer,
  log: (line: string) => void,
): Promise<{ readonly stop: () => Promise<void> }> {
  const ending = new AbortController()
  const stop = ending.signal
  const database = openDatabase(url, 12)
  const world = new World(database, url, key, stop)
  const leases = new Leases(url)
  const id = uuid()
  const told = (what: string) => (cause: unknown) =>
    log(`${what}: ${cause instanceof Error ? cause.message : String(cause)}`)

  const followed = new Map<string, Promise<void>>()
  const leaseSystems = async () => {
    for (const systemId of await systemIds({ database })) {
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
  let clock: AbortSignal | undefined
  const keepClock = async () => {
    if (clock === undefined || clock.aborted) clock = await leases.take({ kind: 'clock' })
    if (clock !== undefined) await agreeOnClock(world)
  }
  let metrics: AbortSignal | undefined
  const lookAfterMetrics = async () => {
    if (metrics === undefined || metrics.aborted) metrics = await leases.take({ kind: 'metrics' })
    if (metrics !== undefined) await keepMetrics(world)
  }
  let telling: AbortSignal | undefined
  const tellAll = async () => {
    if (telling === undefined || telling.aborted) telling = await leases.take({ kind: 'telling' })
    if (telling !== undefined) await tell(world)
  }
  let people: AbortSignal | undefined
  const readPeople = async () => {
    if (people === undefined || people.aborted) people = await leases.take({ kind: 'directories' })
    if (people !== undefined) await readDirectories(world, told('reading a directory'))
  }
  const loops = [
    queueLoop(world, log),
    every(1000, stop, leaseSystems, told('looking for systems')),
    every(2000, stop, keepClock, told('agreeing on the clock')),
    every(1000, stop, () => takeUpChanges(world), told('taking up changes')),
    every(3000, stop, () => deleteHeld(world, told('deleting what was held')), told('deleting what was held')),
    every(5000, stop, lookAfterMetrics, told('keeping what is measured')),
    every(5000, stop, tellAll, told('telling')),
    every(10_000, stop, readPeople, told('reading directories')),
    every(10_000, stop, () => noteWorker({ database }, id), told('saying that a worker runs')),
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

/** The queue gives up when it has lost its database for some time: it is begun anew, for as long as this process lives. */
async function queueLoop(world: World, log: (line: string) => void): Promise<void> {
  let failures = 0
  while (!world.stop.aborted) {
    let runner: Runner | undefined
    try {
      runner = await run({
        connectionString: world.url,
        concurrency: changesAtOnce,
        pollInterval: 2000,
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
